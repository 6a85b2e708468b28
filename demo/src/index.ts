export { buildModel, COMMISSION_MODELS, modelGlb, type CommissionModel } from './commission-models.ts';
export { readCommission } from './read-commission.ts';
