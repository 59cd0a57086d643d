/**
 * Documents of earlier formats as this one has them. Format 1 had words for how a quantity grows with its line; format 2
 * says for every how many pieces it is counted.
 */

type Held = Readonly<Record<string, unknown>>;
const isHeld = (value: unknown): value is Held =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const countings: Readonly<Record<string, unknown>> = { perParent: { every: 1 }, once: 'line', own: 'typed' };

/** The document in the format of today; what is of no format that was is given back as it is. */
export function movedOn(given: unknown): unknown {
  if (!isHeld(given)) return given;
  const { format, library } = given;
  const isOld = format === 1;
  // A new document may name models that were published before.
  if (!isOld && !(format === 2 && isHeld(library) && hasOld(library['models']))) return given;
  return {
    ...(isOld ? { ...partsMoved(given), format: 2 } : given),
    ...(isHeld(library) ? { library: libraryMoved(library) } : {}),
  };
}

const hasOld = (models: unknown): boolean =>
  Array.isArray(models) && models.some((each: unknown) => isHeld(each) && each['format'] !== 2);

function libraryMoved(library: Held): Held {
  const { models, classes } = library;
  return {
    ...library,
    ...(Array.isArray(models) ? { models: models.map(movedOn) } : {}),
    ...(Array.isArray(classes) ? { classes: classes.map((each: unknown) => partsMoved(each)) } : {}),
  };
}

/** What a model or a class counts. */
function partsMoved(given: unknown): Held {
  if (!isHeld(given)) return given as Held;
  return {
    ...given,
    ...each(given, 'features', (feature) => ({ ...feature, ...each(feature, 'options', quantityMoved) })),
    ...each(given, 'parameters', quantityMoved),
    ...each(given, 'materials', growthMoved),
  };
}

/** A list of what has it with each of its parts changed; nothing where there is none. */
function each(of: Held, name: string, change: (part: Held) => Held): Held {
  const list = of[name];
  if (!Array.isArray(list)) return {};
  return { [name]: list.map((part: unknown) => (isHeld(part) ? change(part) : part)) };
}

function quantityMoved(part: Held): Held {
  const { quantity } = part;
  return isHeld(quantity) ? { ...part, quantity: growthMoved(quantity) } : part;
}

function growthMoved(given: Held): Held {
  const { grows, ...others } = given;
  if (typeof grows !== 'string') return given;
  return { ...others, counts: countings[grows] ?? grows };
}
