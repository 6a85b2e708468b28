import { expect, test } from '@jest/globals';
import { validateBytes } from 'gltf-validator';
import { COMMISSION_MODELS, modelGlb } from './index.ts';

// Outside check: the validator of the Khronos Group, who publish the glTF 2.0 standard.
test.each(COMMISSION_MODELS)('$fileName is a valid GLB without errors or warnings', async (entry) => {
  const report = await validateBytes(await modelGlb(entry), { maxIssues: 20 });
  expect(report.issues.messages.filter(({ severity }) => severity < 2)).toEqual([]);
  expect(report.issues.numErrors).toBe(0);
  expect(report.issues.numWarnings).toBe(0);
  expect(report.info.totalTriangleCount).toBeGreaterThan(400);
});
