import { Link } from 'react-router';
import { Empty } from '../../kit/index.ts';

/** Said by every stage that has nothing to work on yet. */
export function NeedsModel() {
  return (
    <Empty
      title="First a model"
      action={
        <Link
          to="../model"
          relative="path"
          className="inline-flex h-8 items-center rounded-lg bg-lagoon px-3 font-medium text-paper hover:brightness-110"
        >
          Bring a model in
        </Link>
      }
    >
      Views and moves need something to look at. Bring in a building, an interior, a landscape or a product.
    </Empty>
  );
}
