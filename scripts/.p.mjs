// src/core/model/schema.ts
import { array, boolean, lazy, mixed, number, object, string } from "yup";
var id = string().strict().matches(/^[a-z][A-Za-z0-9]{0,39}$/, "model.badId").required();
var way = string().strict().matches(/^[a-z][A-Za-z0-9]{0,39}(\/[a-z0-9][A-Za-z0-9]{0,39}){0,12}$/, "model.badId").required();
var sku = string().strict().matches(/^[A-Z0-9][A-Z0-9.-]{0,39}$/, "model.badSku");
var feel = string().strict().max(1e5);
var decimal = string().strict().matches(/^-?\d{1,15}(\.\d{1,12})?$/, "model.badDecimal");
var day = string().strict().matches(/^\d{4}-\d\d-\d\d$/, "model.badDay");
var severity = string().strict().oneOf(["error", "warning", "note"]);
var isTexts = (value) => typeof value === "object" && value !== null && !Array.isArray(value) && Object.keys(value).length > 0 && Object.values(value).every((text3) => typeof text3 === "string" && text3.length > 0 && text3.length <= 2e3);
var texts = mixed().test("texts", "model.noText", isTexts);
var optionalTexts = mixed().test("texts", "model.noText", (value) => value === void 0 || isTexts(value));
var shape = (fields) => object(fields).strict().noUnknown("model.unknownField");
var list = (of, most) => array().strict().of(of).max(most).required();
var proposed = mixed().test("value", "model.badValue", (value) => value === null || typeof value === "string" || typeof value === "boolean" || isFormula(value)).defined();
function byField(field, schemas) {
  return lazy((value) => {
    const name2 = value?.[field];
    const known2 = typeof name2 === "string" && Object.hasOwn(schemas, name2);
    return known2 ? schemas[name2] : shape({ [field]: string().strict().oneOf(Object.keys(schemas), "model.unknownKind").required() });
  });
}
var record = (fits2) => mixed().test("record", "model.badValue", (value) => value === void 0 || typeof value === "object" && value !== null && !Array.isArray(value) && Object.values(value).every(fits2));
var quantityShape = shape({
  usual: feel.required(),
  least: decimal,
  most: decimal.required(),
  step: decimal,
  fixed: boolean().strict(),
  grows: string().strict().oneOf(["perParent", "once", "own"])
});
var quantity = lazy((value) => typeof value === "object" && value !== null ? quantityShape : feel);
var isId = (value) => typeof value === "string" && /^[a-z][A-Za-z0-9]{0,39}$/.test(value);
var isSku = (value) => typeof value === "string" && /^[A-Z0-9][A-Z0-9.-]{0,39}$/.test(value);
var optionFields = {
  id: { fits: isId, needed: true },
  code: { fits: (value) => typeof value === "string" && value.length <= 8 },
  name: { fits: isTexts, needed: true },
  item: { fits: isSku },
  model: { fits: isId },
  quantity: { fits: (value) => typeof value === "string" ? value !== "" && value.length <= 1e5 : quantityShape.isValidSync(value) }
};
function optionProblem(option) {
  if (typeof option !== "object" || option === null || Array.isArray(option)) return ["", "model.badValue"];
  const given = option;
  for (const name2 of Object.keys(given)) if (!Object.hasOwn(optionFields, name2)) return [name2, "model.unknownField"];
  for (const [name2, { fits: fits2, needed }] of Object.entries(optionFields)) {
    if (given[name2] === void 0 ? needed : !fits2(given[name2])) return [name2, "model.badValue"];
  }
  return null;
}
var options = array().strict().min(1).max(2e4).required().test("options", "model.badValue", function(list2) {
  for (const [index, option] of list2.entries()) {
    const problem = optionProblem(option);
    if (problem) return this.createError({ path: `${this.path}[${String(index)}]${problem[0] && "."}${problem[0]}`, message: problem[1] });
  }
  return true;
});
var feature = shape({
  id,
  name: texts,
  short: optionalTexts,
  help: optionalTexts,
  least: number().strict().integer().min(0).required(),
  most: number().strict().integer().min(1).required(),
  options,
  usual: array().strict().of(id),
  reachesDown: boolean().strict()
});
var isFormula = (value) => typeof value === "object" && value !== null && Object.keys(value).join() === "formula" && typeof value.formula === "string";
var usualText = mixed().test("usual", "model.badValue", (value) => value === void 0 || typeof value === "string" || isFormula(value));
var parameterBase = { id, type: string().required(), name: texts, short: optionalTexts, help: optionalTexts, reachesDown: boolean().strict() };
var optional = boolean().strict();
var parameter = byField("type", {
  number: shape({ ...parameterBase, unit: string().strict().defined(), least: decimal.required(), most: decimal.required(), step: decimal.required(), optional, usual: usualText }),
  yesno: shape({ ...parameterBase, usual: boolean().strict(), item: sku, quantity }),
  choice: shape({ ...parameterBase, options: list(shape({ id, code: string().strict().max(8), name: texts }), 5e3).min(1), optional, usual: id.notRequired() }),
  text: shape({ ...parameterBase, most: number().strict().integer().min(1).max(2e3).required(), optional, usual: string().strict().max(2e3) }),
  date: shape({ ...parameterBase, least: day.required(), most: day.required(), optional, usual: usualText })
});
var isTextList = (value) => Array.isArray(value) && value.every((each) => typeof each === "string");
var isPlain = (value) => value === null || typeof value === "string" || typeof value === "boolean";
var ruleBase = { id, kind: string().required(), reason: texts, help: string().strict().max(300), from: day, until: day, where: record(isTextList) };
var rule = byField("kind", {
  require: shape({ ...ruleBase, when: feel, must: feel.required(), severity }),
  exclude: shape({ ...ruleBase, all: list(feel.required(), 20).min(1), severity }),
  limit: shape({ ...ruleBase, of: way, when: feel, least: feel, most: feel, severity }),
  table: shape({
    ...ruleBase,
    of: list(id, 12).min(1),
    rows: list(array().strict().of(feel.required()).required(), 1e4),
    listed: string().strict().oneOf(["allowed", "forbidden"]).required(),
    severity
  }),
  set: shape({ ...ruleBase, of: string().strict().required(), when: feel, value: proposed, firm: boolean().strict().required() }),
  usual: shape({ ...ruleBase, of: string().strict().required(), when: feel, value: proposed }),
  show: shape({ ...ruleBase, of: way, when: feel.required() }),
  say: shape({ ...ruleBase, when: feel.required(), severity: string().strict().oneOf(["warning", "note"]).required() })
});
var segmentBase = { kind: string().required(), before: string().strict().max(4), when: feel };
var width = number().strict().integer().min(1).max(12).required();
var segment = byField("kind", {
  text: shape({ ...segmentBase, text: string().strict().max(12).required() }),
  code: shape({ ...segmentBase, of: id }),
  number: shape({ ...segmentBase, of: id, times: decimal, width }),
  letters: shape({ ...segmentBase, of: id }),
  sequence: shape({ ...segmentBase, of: list(id, 20).min(1), width }),
  check: shape({ ...segmentBase })
});
var choice = shape({ id: string().strict().matches(/^[A-Za-z][A-Za-z0-9]{0,39}$/, "model.badId").required(), name: texts });
var section = shape({ id, name: texts, rows: list(id, 500) });
var calculation = shape({
  id,
  name: texts,
  type: string().strict().oneOf(["number", "text", "yesno"]).required(),
  unit: string().strict(),
  decimals: number().strict().integer().min(0).max(6),
  formula: feel.required()
});
var few = (of, most) => array().strict().of(of).max(most);
var modelClass = shape({ id, name: texts, sections: few(section, 200), features: few(feature, 1e3), parameters: few(parameter, 1e3), calculations: few(calculation, 1e3), rules: few(rule, 5e3) });
var isNumbers = (value) => typeof value === "object" && value !== null && Object.values(value).every((each) => typeof each === "string" && /^-?\d{1,15}(\.\d{1,12})?$/.test(each));
var documentSchema = shape({
  format: number().strict().oneOf([1], "model.otherFormat").required(),
  id,
  name: texts,
  languages: list(string().strict().matches(/^[a-z]{2}$/, "model.badLanguage").required(), 20).min(1),
  context: list(shape({ id, name: texts, values: list(choice, 500).min(1) }), 50),
  sections: list(section, 200),
  features: list(feature, 5e3),
  parameters: list(parameter, 5e3),
  calculations: list(calculation, 5e3),
  rules: list(rule, 2e4),
  numbering: list(segment, 60),
  prices: list(shape({ id, name: texts, item: sku.required(), quantity: feel.required(), when: feel }), 5e3),
  surcharges: list(shape({ id, name: texts, of: list(id, 100).min(1), rate: feel.required(), when: feel.required() }), 200),
  materials: list(shape({ id, item: sku.required(), quantity: feel.required(), when: feel, scrap: decimal, cut: feel }), 5e3),
  operations: list(
    shape({ id, name: texts, centre: string().strict().max(40).required(), setUp: feel.required(), run: feel.required(), when: feel, text: texts }),
    1e3
  ),
  extraDays: feel,
  tests: array().strict().max(2e3).of(
    shape({
      id,
      context: record((value) => typeof value === "string"),
      decisions: record(isPlain).defined(),
      expect: shape({
        complete: boolean().strict(),
        values: record((value) => isPlain(value) || isTextList(value)),
        standings: record((value) => value === "free" || value === "swap" || value === "barred"),
        reasons: record(isTextList),
        messages: array().strict().of(string().strict().required()),
        partNumber: string().strict()
      }).required()
    })
  ),
  figures: shape({ mass: id.notRequired(), installation: id.notRequired(), more: list(id, 20) }),
  classes: few(id, 50),
  properties: few(shape({ id, name: texts, unit: string().strict().defined() }), 50),
  items: record(isNumbers),
  library: lazy((value) => value === void 0 ? mixed() : shape({ models: few(documentSchema, 100), classes: few(modelClass, 100) }))
}).required();

// src/core/model/compile.ts
import { ValidationError } from "yup";

// src/core/exact/index.ts
import { Decimal } from "decimal.js";
var Exact = Decimal.clone({ precision: 34, rounding: Decimal.ROUND_HALF_EVEN, toExpNeg: -40, toExpPos: 40 });
var exact = (value) => new Exact(value);
var zero = exact(0);
var written = /^-?\d{1,15}(\.\d{1,12})?$/;
function readExact(text3) {
  return written.test(text3) ? new Exact(text3) : null;
}

// src/core/formula/time.ts
var millisecondsOfDay = 864e5;
var furthest = 1e8;
var Day = class _Day {
  constructor(number4) {
    this.number = number4;
  }
  number;
  static at(number4) {
    return Number.isInteger(number4) && Math.abs(number4) <= furthest ? new _Day(number4) : null;
  }
  /** A day that exists in the calendar; null for the 30th of February. */
  static of(year, month, day2) {
    if (!Number.isInteger(year) || !Number.isInteger(month) || !Number.isInteger(day2) || year < 1 || year > 9999) return null;
    const date2 = /* @__PURE__ */ new Date(0);
    date2.setUTCFullYear(year, month - 1, day2);
    const found = _Day.at(Math.round(date2.getTime() / millisecondsOfDay));
    return found?.year === year && found.month === month && found.day === day2 ? found : null;
  }
  static read(text3) {
    const [, year, month, day2] = /^(\d{4})-(\d\d)-(\d\d)$/.exec(text3) ?? [];
    return day2 === void 0 ? null : _Day.of(Number(year), Number(month), Number(day2));
  }
  get date() {
    return new Date(this.number * millisecondsOfDay);
  }
  get year() {
    return this.date.getUTCFullYear();
  }
  get month() {
    return this.date.getUTCMonth() + 1;
  }
  get day() {
    return this.date.getUTCDate();
  }
  /** 1 is Monday. */
  get weekday() {
    return this.date.getUTCDay() || 7;
  }
  plus({ unit, amount }) {
    if (unit === "seconds") return _Day.at(this.number + Math.floor(amount / 86400));
    const months2 = this.year * 12 + this.month - 1 + amount;
    const [year, month] = [Math.floor(months2 / 12), (months2 % 12 + 12) % 12];
    for (let day2 = this.day; day2 >= 28; day2--) {
      const found = _Day.of(year, month + 1, day2);
      if (found) return found;
    }
    return _Day.of(year, month + 1, this.day);
  }
  toString() {
    return `${String(this.year).padStart(4, "0")}-${String(this.month).padStart(2, "0")}-${String(this.day).padStart(2, "0")}`;
  }
};
var Span = class _Span {
  constructor(unit, amount) {
    this.unit = unit;
    this.amount = amount;
  }
  unit;
  amount;
  static read(text3) {
    const months2 = /^(-?)P(?=\d)(?:(\d+)Y)?(?:(\d+)M)?$/.exec(text3);
    if (months2) return _Span.make("months", months2[1], 12 * Number(months2[2] ?? 0) + Number(months2[3] ?? 0));
    const time = /^(-?)P(?=\d|T\d)(?:(\d+)D)?(?:T(?=\d)(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?$/.exec(text3);
    if (!time) return null;
    const [, sign, days2 = 0, hours = 0, minutes = 0, seconds = 0] = time;
    return _Span.make("seconds", sign, ((Number(days2) * 24 + Number(hours)) * 60 + Number(minutes)) * 60 + Number(seconds));
  }
  static make(unit, sign, amount) {
    return Number.isSafeInteger(amount) ? new _Span(unit, amount === 0 ? 0 : sign === "-" ? -amount : amount) : null;
  }
  plus(other) {
    return this.unit === other.unit ? new _Span(this.unit, this.amount + other.amount) : null;
  }
  /** As many times; what is left of a second or a month falls away. */
  times(factor) {
    const amount = Math.trunc(this.amount * factor);
    return Number.isSafeInteger(amount) ? new _Span(this.unit, amount === 0 ? 0 : amount) : null;
  }
  toString() {
    const size4 = Math.abs(this.amount);
    const sign = this.amount < 0 ? "-" : "";
    const part = (value, letter) => value > 0 ? `${String(value)}${letter}` : "";
    if (this.unit === "months") return size4 === 0 ? "P0M" : `${sign}P${part(Math.floor(size4 / 12), "Y")}${part(size4 % 12, "M")}`;
    if (size4 === 0) return "PT0S";
    const clock = part(Math.floor(size4 / 3600) % 24, "H") + part(Math.floor(size4 / 60) % 60, "M") + part(size4 % 60, "S");
    return `${sign}P${part(Math.floor(size4 / 86400), "D")}${clock ? `T${clock}` : ""}`;
  }
};

// src/core/formula/value.ts
function equal(a, b) {
  if (a === null || b === null) return a === b;
  if (a instanceof Exact) return b instanceof Exact ? a.equals(b) : null;
  if (a instanceof Day) return b instanceof Day ? a.number === b.number : null;
  if (a instanceof Span) return b instanceof Span && a.unit === b.unit ? a.amount === b.amount : null;
  if (Array.isArray(a)) return Array.isArray(b) ? a.length === b.length && a.every((each, i) => equal(each, b[i]) === true) : null;
  return typeof a === typeof b ? a === b : null;
}
function compareValues(op, a, b) {
  if (op === "=") return equal(a, b);
  if (op === "!=") {
    const same2 = equal(a, b);
    return same2 === null ? null : !same2;
  }
  const order2 = orderOf(a, b);
  if (order2 === null) return null;
  return op === "<" ? order2 < 0 : op === "<=" ? order2 <= 0 : op === ">" ? order2 > 0 : order2 >= 0;
}
function orderOf(a, b) {
  if (a instanceof Exact && b instanceof Exact) return a.comparedTo(b);
  if (typeof a === "string" && typeof b === "string") return a < b ? -1 : a > b ? 1 : 0;
  if (a instanceof Day && b instanceof Day) return a.number - b.number;
  if (a instanceof Span && b instanceof Span && a.unit === b.unit) return a.amount - b.amount;
  return null;
}
function arithmetic(op, a, b) {
  if (a instanceof Exact && b instanceof Exact) {
    const result = op === "+" ? a.plus(b) : op === "-" ? a.minus(b) : op === "*" ? a.times(b) : op === "/" ? a.div(b) : a.pow(b);
    return result.isFinite() ? result : null;
  }
  if (op === "+" && typeof a === "string" && typeof b === "string") return a + b;
  return withTime(op, a, b);
}
function withTime(op, a, b) {
  if (a instanceof Day && b instanceof Day) return op === "-" ? new Span("seconds", (a.number - b.number) * 86400) : null;
  if (a instanceof Day && b instanceof Span) return op === "+" ? a.plus(b) : op === "-" ? a.plus(new Span(b.unit, -b.amount)) : null;
  if (a instanceof Span && b instanceof Day) return op === "+" ? b.plus(a) : null;
  if (a instanceof Span && b instanceof Span) {
    if (op === "/") return a.unit === b.unit && b.amount !== 0 ? new Exact(a.amount).div(b.amount) : null;
    return op === "+" ? a.plus(b) : op === "-" ? a.plus(new Span(b.unit, -b.amount)) : null;
  }
  if (a instanceof Span && b instanceof Exact) return op === "*" ? a.times(b.toNumber()) : op === "/" && !b.isZero() ? a.times(1 / b.toNumber()) : null;
  if (a instanceof Exact && b instanceof Span) return op === "*" ? b.times(a.toNumber()) : null;
  return null;
}
function partOf(value, name2) {
  if (value instanceof Day) {
    const parts2 = { year: value.year, month: value.month, day: value.day, weekday: value.weekday };
    return Object.hasOwn(parts2, name2) ? new Exact(parts2[name2]) : null;
  }
  if (!(value instanceof Span)) return null;
  const size4 = Math.abs(value.amount);
  const parts = value.unit === "months" ? { years: Math.floor(size4 / 12), months: size4 % 12 } : { days: Math.floor(size4 / 86400), hours: Math.floor(size4 / 3600) % 24, minutes: Math.floor(size4 / 60) % 60, seconds: size4 % 60 };
  if (!Object.hasOwn(parts, name2)) return null;
  const part = parts[name2];
  return new Exact(value.amount < 0 && part !== 0 ? -part : part);
}
function written2(value) {
  if (Array.isArray(value)) return `[${value.map((each) => typeof each === "string" ? JSON.stringify(each) : written2(each)).join(", ")}]`;
  return String(value);
}

// src/core/formula/builtins/builtin.ts
var number2 = { is: "number", unit: "any" };
var text = { is: "text" };
var yesno = { is: "yesno" };
var sameAsFirst = (args) => args[0] ?? number2;
var itemOf = (type) => type?.is === "list" ? type.item : type ?? { is: "unknown" };
var listOfFirst = (args) => ({ is: "list", item: itemOf(args[0]) });
var asList = (value) => Array.isArray(value) ? value : value === null || value === void 0 ? null : [value];
var itemsOf = (args) => args.length === 1 ? asList(args[0]) : args;
var whole = (value) => value instanceof Exact && value.isInteger() && value.abs().lte(1e9) ? value.toNumber() : null;
var contains = (list2, item2) => list2.some((each) => equal(each, item2) === true);

// src/core/formula/builtins/lists.ts
var overNumbers = (apply, type = (args) => itemOf(args[0])) => ({
  least: 1,
  most: 99,
  takes: [],
  type,
  apply: (args) => {
    const items = itemsOf(args);
    return items?.every((item2) => item2 instanceof Exact) ? apply(items) : null;
  }
});
var extreme = (sign) => ({
  least: 1,
  most: 99,
  takes: [],
  type: (args) => itemOf(args[0]),
  apply: (args) => {
    const [first2, ...rest] = itemsOf(args) ?? [];
    let best = first2 ?? null;
    if (best !== null && compareValues("<", best, best) === null) return null;
    for (const item2 of rest) {
      const before = compareValues(sign, item2, best);
      if (before === null) return null;
      if (before) best = item2;
    }
    return best;
  }
});
var onList = (most, type, apply, least2 = most) => ({
  least: least2,
  most,
  takes: [],
  type,
  apply: ([first2, ...rest]) => {
    const list2 = asList(first2);
    return list2 ? apply(list2, rest) : null;
  }
});
var truths = (decisive) => ({
  least: 1,
  most: 99,
  takes: [],
  type: () => yesno,
  apply: (args) => {
    const items = itemsOf(args);
    if (!items) return null;
    if (items.includes(decisive)) return decisive;
    return items.every((item2) => typeof item2 === "boolean") ? !decisive : null;
  }
});
var total = (numbers3) => numbers3.reduce((sum, each) => sum.plus(each), new Exact(0));
var mean = (numbers3) => total(numbers3).div(numbers3.length);
function median(numbers3) {
  const sorted = [...numbers3].sort((a, b) => a.comparedTo(b));
  const middle = sorted.length >> 1;
  if (sorted.length === 0) return null;
  return sorted.length % 2 === 1 ? sorted[middle] : sorted[middle - 1].plus(sorted[middle]).div(2);
}
function deviation(numbers3) {
  if (numbers3.length < 2) return null;
  const middle = mean(numbers3);
  return total(numbers3.map((each) => each.minus(middle).pow(2))).div(numbers3.length - 1).sqrt();
}
function mode(numbers3) {
  const counts = /* @__PURE__ */ new Map();
  for (const each of numbers3) counts.set(each.toString(), (counts.get(each.toString()) ?? 0) + 1);
  const most = Math.max(0, ...counts.values());
  return [...counts].filter(([, count]) => count === most).map(([each]) => new Exact(each)).sort((a, b) => a.comparedTo(b));
}
var unique = (list2) => list2.reduce((found, item2) => contains(found, item2) ? found : [...found, item2], []);
var flat = (list2) => list2.flatMap((item2) => Array.isArray(item2) ? flat(item2) : [item2]);
function placeOf(position, length) {
  const at = whole(position);
  if (at === null || at === 0 || Math.abs(at) > length) return null;
  return at > 0 ? at - 1 : length + at;
}
var lists = {
  "min": extreme("<"),
  "max": extreme(">"),
  "sum": overNumbers((numbers3) => numbers3.length ? total(numbers3) : null),
  "mean": overNumbers((numbers3) => numbers3.length ? mean(numbers3) : null),
  "product": overNumbers((numbers3) => numbers3.length ? numbers3.reduce((product2, each) => product2.times(each)) : null, () => number2),
  "median": overNumbers(median),
  "stddev": overNumbers(deviation),
  "mode": overNumbers(mode, listOfFirst),
  "all": truths(false),
  "any": truths(true),
  "count": { least: 1, most: 1, takes: ["list"], type: () => number2, apply: ([list2]) => Array.isArray(list2) ? new Exact(list2.length) : list2 === null ? null : new Exact(1) },
  "list contains": { least: 2, most: 2, takes: ["list"], type: () => yesno, apply: ([list2, item2]) => Array.isArray(list2) ? contains(list2, item2) : null },
  "append": onList(99, listOfFirst, (list2, rest) => [...list2, ...rest], 2),
  "concatenate": { least: 1, most: 99, takes: [], type: listOfFirst, apply: (args) => {
    const all2 = args.map(asList);
    return all2.every((each) => each !== null) ? all2.flat(1) : null;
  } },
  "insert before": onList(3, listOfFirst, (list2, [position, item2]) => {
    const at = placeOf(position, list2.length);
    return at === null ? null : [...list2.slice(0, at), item2, ...list2.slice(at)];
  }),
  "remove": onList(2, listOfFirst, (list2, [position]) => {
    const at = placeOf(position, list2.length);
    return at === null ? null : list2.filter((_, index) => index !== at);
  }),
  "reverse": onList(1, listOfFirst, (list2) => [...list2].reverse()),
  "index of": onList(2, () => ({ is: "list", item: number2 }), (list2, [item2]) => list2.flatMap((each, index) => equal(each, item2) === true ? [new Exact(index + 1)] : [])),
  "union": { least: 1, most: 99, takes: [], type: listOfFirst, apply: (args) => {
    const all2 = args.map(asList);
    return all2.every((each) => each !== null) ? unique(all2.flat(1)) : null;
  } },
  "distinct values": onList(1, listOfFirst, unique),
  "flatten": onList(1, ([type]) => {
    let item2 = itemOf(type);
    while (item2.is === "list") item2 = item2.item;
    return { is: "list", item: item2 };
  }, flat),
  "sublist": onList(3, listOfFirst, (list2, [start, length]) => {
    const from = placeOf(start, list2.length);
    const wanted2 = length === void 0 ? list2.length : whole(length);
    return from === null || wanted2 === null || wanted2 < 0 ? null : list2.slice(from, from + wanted2);
  }, 2)
};

// src/core/formula/builtins/numbers.ts
import { Decimal as Decimal2 } from "decimal.js";
var onNumber = (apply) => ({
  least: 1,
  most: 2,
  takes: ["number", "number"],
  type: sameAsFirst,
  apply: ([value, places]) => {
    if (!(value instanceof Exact)) return null;
    if (places !== void 0 && !(places instanceof Exact)) return null;
    return apply(value, places ? places.toNumber() : 0);
  }
});
var rounded = (mode2) => onNumber((value, places) => scaled(value, places, mode2));
function scaled(value, places, mode2) {
  if (!Number.isInteger(places) || Math.abs(places) > 30) return null;
  const factor = new Exact(10).pow(places);
  return new Exact(value.times(factor).toDecimalPlaces(0, mode2)).div(factor);
}
var pure = (apply) => ({
  least: 1,
  most: 1,
  takes: ["number"],
  type: () => number2,
  apply: ([value]) => {
    const result = value instanceof Exact ? apply(value) : null;
    return result?.isFinite() ? result : null;
  }
});
var parity = (rest) => ({
  least: 1,
  most: 1,
  takes: ["number"],
  type: () => yesno,
  apply: ([value]) => value instanceof Exact && value.isInteger() ? value.abs().mod(2).eq(rest) : null
});
var numbers = {
  abs: { ...onNumber((value) => value.abs()), most: 1 },
  ceiling: rounded(Decimal2.ROUND_CEIL),
  floor: rounded(Decimal2.ROUND_FLOOR),
  "round up": rounded(Decimal2.ROUND_UP),
  "round down": rounded(Decimal2.ROUND_DOWN),
  "round half up": rounded(Decimal2.ROUND_HALF_UP),
  "round half down": rounded(Decimal2.ROUND_HALF_DOWN),
  decimal: { ...rounded(Decimal2.ROUND_HALF_EVEN), least: 2 },
  /** Takes the sign of the divisor, as the standard has it: dividend - divisor * floor(dividend / divisor). */
  modulo: {
    least: 2,
    most: 2,
    takes: ["number", "number"],
    type: sameAsFirst,
    apply: ([a, b]) => a instanceof Exact && b instanceof Exact && !b.isZero() ? a.minus(b.times(a.div(b).floor())) : null
  },
  sqrt: pure((value) => value.sqrt()),
  log: pure((value) => value.ln()),
  exp: pure((value) => value.exp()),
  odd: parity(1),
  even: parity(0)
};

// src/core/formula/builtins/texts.ts
var onTexts = (takes, type, apply, least2 = takes.length) => ({
  least: least2,
  most: takes.length,
  takes,
  type,
  apply: (args) => {
    if (!args.every((arg, index) => takes[index] === "text" ? typeof arg === "string" : arg instanceof Exact)) return null;
    return apply(args.filter((arg) => typeof arg === "string"), args.filter((arg) => arg instanceof Exact));
  }
});
var isText = () => text;
var isYesno = () => yesno;
function substring(source, start, length) {
  const characters = [...source];
  if (start === null || start === 0 || length === null || Math.abs(start) > characters.length) return null;
  if (length !== void 0 && length < 1) return null;
  const from = start > 0 ? start - 1 : characters.length + start;
  return characters.slice(from, length === void 0 ? void 0 : from + length).join("");
}
var texts2 = {
  "substring": onTexts(["text", "number", "number"], isText, ([source = ""], [start, length]) => substring(source, whole(start), length === void 0 ? void 0 : whole(length)), 2),
  "string length": onTexts(["text"], () => number2, ([source = ""]) => new Exact([...source].length)),
  "upper case": onTexts(["text"], isText, ([source = ""]) => source.toUpperCase()),
  "lower case": onTexts(["text"], isText, ([source = ""]) => source.toLowerCase()),
  "substring before": onTexts(["text", "text"], isText, ([source = "", match = ""]) => source.slice(0, Math.max(0, source.indexOf(match)))),
  "substring after": onTexts(["text", "text"], isText, ([source = "", match = ""]) => source.includes(match) ? source.slice(source.indexOf(match) + match.length) : ""),
  "contains": onTexts(["text", "text"], isYesno, ([source = "", match = ""]) => source.includes(match)),
  "starts with": onTexts(["text", "text"], isYesno, ([source = "", match = ""]) => source.startsWith(match)),
  "ends with": onTexts(["text", "text"], isYesno, ([source = "", match = ""]) => source.endsWith(match)),
  "string": { least: 1, most: 1, takes: [], type: isText, apply: ([value]) => value === null || value === void 0 ? null : written2(value) },
  "string join": {
    least: 1,
    most: 2,
    takes: ["list", "text"],
    type: isText,
    apply: ([list2, delimiter = ""]) => {
      const items = asList(list2)?.filter((item2) => item2 !== null);
      if (!items?.every((item2) => typeof item2 === "string")) return null;
      return delimiter === null ? items.join("") : typeof delimiter === "string" ? items.join(delimiter) : null;
    }
  },
  "number": {
    least: 1,
    most: 1,
    takes: ["text"],
    type: () => number2,
    apply: ([source]) => typeof source === "string" && /^-?(\d+(\.\d+)?|\.\d+)$/.test(source) ? new Exact(source) : null
  }
};

// src/core/formula/builtins/times.ts
var date = { is: "date" };
var ofDay = (type, apply) => ({ least: 1, most: 1, takes: ["date"], type: () => type, apply: ([day2]) => day2 instanceof Day ? apply(day2) : null });
var weekdays = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];
var months = ["January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November", "December"];
function dayOfYear(day2) {
  return day2.number - Day.of(day2.year, 1, 1).number + 1;
}
function weekOfYear(day2) {
  const thursday = Day.at(day2.number + 4 - day2.weekday);
  return Math.ceil(dayOfYear(thursday) / 7);
}
var times = {
  "date": {
    least: 1,
    most: 3,
    takes: [],
    type: () => date,
    apply: (args) => {
      const [first2] = args;
      if (args.length === 1) return typeof first2 === "string" ? Day.read(first2) : first2 instanceof Day ? first2 : null;
      const [year, month, day2] = args.map(whole);
      return args.length === 3 && year != null && month != null && day2 != null ? Day.of(year, month, day2) : null;
    }
  },
  "duration": { least: 1, most: 1, takes: ["text"], type: () => ({ is: "duration" }), apply: ([source]) => typeof source === "string" ? Span.read(source) : null },
  "years and months duration": {
    least: 2,
    most: 2,
    takes: ["date", "date"],
    type: () => ({ is: "duration" }),
    apply: ([from, to]) => {
      if (!(from instanceof Day) || !(to instanceof Day)) return null;
      const [early, late, sign] = from.number <= to.number ? [from, to, 1] : [to, from, -1];
      const whole2 = (late.year - early.year) * 12 + late.month - early.month - (late.day < early.day ? 1 : 0);
      return new Span("months", whole2 === 0 ? 0 : sign * whole2);
    }
  },
  "day of week": ofDay(text, (day2) => weekdays[day2.weekday - 1]),
  "day of year": ofDay(number2, (day2) => new Exact(dayOfYear(day2))),
  "week of year": ofDay(number2, (day2) => new Exact(weekOfYear(day2))),
  "month of year": ofDay(text, (day2) => months[day2.month - 1])
};

// src/core/formula/builtins/index.ts
var builtins = {
  not: { least: 1, most: 1, takes: ["yesno"], type: () => yesno, apply: ([value]) => typeof value === "boolean" ? !value : null },
  ...numbers,
  ...texts2,
  ...lists,
  ...times
};

// src/core/formula/units.ts
var noUnit = /* @__PURE__ */ new Map();
function readUnit(text3) {
  const powers = /* @__PURE__ */ new Map();
  text3.split("/").forEach((part, index) => {
    for (const factor of part.split("*").filter(Boolean)) {
      const [, symbol = factor, power = "1"] = /^(.*?)(\d*)$/.exec(factor) ?? [];
      const sign = index === 0 ? 1 : -1;
      powers.set(symbol, (powers.get(symbol) ?? 0) + sign * Number(power || "1"));
    }
  });
  return trimmed(powers);
}
function sameUnit(a, b) {
  if (a === "any" || b === "any") return true;
  return a.size === b.size && [...a].every(([symbol, power]) => b.get(symbol) === power);
}
var known = (a, b) => a === "any" ? b : a;
function product(a, b, sign) {
  if (a === "any" || b === "any") return "any";
  const powers = new Map(a);
  for (const [symbol, power] of b) powers.set(symbol, (powers.get(symbol) ?? 0) + sign * power);
  return trimmed(powers);
}
function writeUnit(unit) {
  if (unit === "any") return "?";
  const write = ([symbol, power]) => symbol + (Math.abs(power) === 1 ? "" : String(Math.abs(power)));
  const above = [...unit].filter(([, power]) => power > 0).map(write);
  const below = [...unit].filter(([, power]) => power < 0).map(write);
  return above.join("*") + below.map((part) => `/${part}`).join("") || "1";
}
function trimmed(powers) {
  for (const [symbol, power] of powers) if (power === 0) powers.delete(symbol);
  return powers;
}

// src/core/formula/types.ts
var fits = (a, b) => {
  if (a.is === "unknown" || b.is === "unknown") return true;
  if (a.is === "number" && b.is === "number") return sameUnit(a.unit, b.unit);
  if (a.is === "list" && b.is === "list") return fits(a.item, b.item);
  return a.is === b.is;
};
function join(a, b) {
  if (a === b) return a;
  if (a.is === "unknown") return b;
  if (a.is === "number" && b.is === "number") return { is: "number", unit: known(a.unit, b.unit) };
  if (a.is === "text" && b.is === "text") return a.of && b.of ? { is: "text", of: /* @__PURE__ */ new Set([...a.of, ...b.of]) } : { is: "text" };
  return a;
}
function withLocal(scope, name2, type) {
  const slot = Math.min(0, ...[...scope.values()].filter((binding) => binding.slot < 0).map((binding) => binding.slot)) - 1;
  return { scope: new Map(scope).set(name2, { slot, type }), slot };
}

// src/core/formula/check.ts
var yesno2 = { is: "yesno" };
var unknown = { is: "unknown" };
function check(expr, scope, problems) {
  const report = (code, at, params = {}) => {
    problems.push({ code, at, params });
    return unknown;
  };
  const of = (sub) => check(sub, scope, problems);
  const expect = (sub, is) => {
    const type = of(sub);
    return type.is === is || type.is === "unknown" ? type : report("formula.wrongType", sub.at, { wanted: is, found: type.is });
  };
  const alike = (left, right) => {
    const [a, b] = [of(left), of(right)];
    if (!fits(a, b)) return mismatch(a, b, right.at);
    slip(a, right);
    slip(b, left);
    return join(a, b);
  };
  const mismatch = (a, b, at) => a.is === "number" && b.is === "number" ? report("formula.unitMismatch", at, { left: writeUnit(a.unit), right: writeUnit(b.unit) }) : report("formula.wrongType", at, { wanted: a.is, found: b.is });
  const slip = (type, literal2) => {
    if (type.is === "text" && type.of && literal2.kind === "literal" && typeof literal2.value === "string" && !type.of.has(literal2.value)) {
      report("formula.unknownOption", literal2.at, { option: literal2.value, allowed: [...type.of].join(", ") });
    }
  };
  const test = (value, one) => {
    if (one.kind === "interval") {
      alike(value, one.low);
      alike(value, one.high);
      return;
    }
    const [type, other] = [of(value), of(one.expr)];
    const against = other.is === "list" && one.kind === "equals" && type.is !== "list" ? other.item : other;
    if (!fits(type, against)) mismatch(type, against, one.expr.at);
    slip(type, one.expr);
    slip(against, value);
  };
  const iterations = (over) => over.reduce((inner, { name: name2, list: list2, to }) => {
    const type = check(list2, inner, problems);
    if (!to) return withLocal(inner, name2, itemOf2(type)).scope;
    for (const [end, found] of [[list2, type], [to, check(to, inner, problems)]]) {
      if (found.is !== "number" && found.is !== "unknown") report("formula.wrongType", end.at, { wanted: "number", found: found.is });
    }
    return withLocal(inner, name2, type).scope;
  }, scope);
  const field = (type, name2) => {
    if (type.is === "unknown") return unknown;
    if (type.is === "places") return type.places.length === 0 ? unknown : type.places[0]?.fields.get(name2)?.type;
    const { facts } = type.is === "text" ? type : { facts: void 0 };
    const number4 = facts?.numbers.get(name2);
    return number4 ? { is: "number", unit: number4.unit } : facts?.options.get(name2) ?? timeParts(type, name2);
  };
  switch (expr.kind) {
    case "literal": {
      const { value } = expr;
      if (value === null) return unknown;
      if (typeof value === "string") return { is: "text" };
      if (value instanceof Day) return { is: "date" };
      if (value instanceof Span) return { is: "duration" };
      return typeof value === "boolean" ? yesno2 : { is: "number", unit: "any" };
    }
    case "name":
      return scope.get(expr.name)?.type ?? report("formula.unknownName", expr.at, { name: expr.name });
    case "negate":
      return expect(expr.of, "number");
    case "arithmetic": {
      const [a, b] = [of(expr.left), of(expr.right)];
      if (expr.op === "+" && a.is === "text" && b.is === "text") return { is: "text" };
      const timed2 = timeArithmetic(expr.op, a, b);
      if (timed2) return timed2;
      for (const [type, sub] of [[a, expr.left], [b, expr.right]]) {
        if (type.is !== "number" && type.is !== "unknown") return report("formula.wrongType", sub.at, { wanted: "number", found: type.is });
      }
      if (a.is !== "number" || b.is !== "number") return { is: "number", unit: "any" };
      if (expr.op === "+" || expr.op === "-") return sameUnit(a.unit, b.unit) ? { is: "number", unit: known(a.unit, b.unit) } : mismatch(a, b, expr.right.at);
      if (expr.op === "**") return { is: "number", unit: "any" };
      return { is: "number", unit: product(a.unit, b.unit, expr.op === "*" ? 1 : -1) };
    }
    case "path": {
      const type = of(expr.of);
      const several = type.is === "list" || type.is === "places" && type.many;
      const found = field(type.is === "list" ? type.item : type, expr.name);
      if (!found) return report("formula.unknownName", expr.at, { name: expr.name });
      return several && found.is !== "places" ? { is: "list", item: found } : found;
    }
    case "filter": {
      const type = of(expr.list);
      const item2 = itemOf2(type);
      const by = check(expr.by, insideOf(withLocal(scope, "item", item2).scope, item2), problems);
      if (type.is === "places") {
        const position = by.is === "number" && !(expr.by.kind === "literal" && expr.list.kind !== "filter");
        if (position || !type.many) return report("formula.unsupported", expr.by.at, { what: "position" });
        return by.is === "number" ? item2 : type;
      }
      if (by.is === "number") return item2;
      if (by.is !== "yesno" && by.is !== "unknown") return report("formula.wrongType", expr.by.at, { wanted: "yesno", found: by.is });
      return { is: "list", item: item2 };
    }
    case "quantified":
    case "for": {
      const inner = iterations(expr.over);
      if (expr.kind === "for") return { is: "list", item: check(expr.body, inner, problems) };
      const type = check(expr.test, inner, problems);
      return type.is === "yesno" || type.is === "unknown" ? yesno2 : report("formula.wrongType", expr.test.at, { wanted: "yesno", found: type.is });
    }
    case "compare":
      alike(expr.left, expr.right);
      return yesno2;
    case "logic":
      expect(expr.left, "yesno");
      expect(expr.right, "yesno");
      return yesno2;
    case "in":
      for (const one of expr.tests) test(expr.value, one);
      return yesno2;
    case "if": {
      expect(expr.test, "yesno");
      const [a, b] = [of(expr.then), of(expr.else)];
      return fits(a, b) ? join(a, b) : mismatch(a, b, expr.else.at);
    }
    case "list":
      return { is: "list", item: expr.items.map(of).reduce((all2, each) => fits(all2, each) ? join(all2, each) : unknown, unknown) };
    case "pick":
    case "gather":
      return unknown;
    case "call": {
      if (expr.name === "today" && expr.args.length === 0) return scope.get("today")?.type ?? report("formula.unknownFunction", expr.at, { name: expr.name });
      if (expr.name === "count" && expr.args[0] && of(expr.args[0]).is === "places") return { is: "number", unit: noUnit };
      const builtin = Object.hasOwn(builtins, expr.name) ? builtins[expr.name] : void 0;
      if (!builtin) return report("formula.unknownFunction", expr.at, { name: expr.name });
      if (expr.args.length < builtin.least || expr.args.length > builtin.most) {
        return report("formula.argumentCount", expr.at, { name: expr.name, least: builtin.least, most: builtin.most });
      }
      const types = expr.args.map((arg, index) => {
        const wanted2 = builtin.takes[index];
        return wanted2 ? expect(arg, wanted2) : of(arg);
      });
      if (expr.name === "list contains" && types[0]?.is === "list") slip(types[0].item, expr.args[1]);
      return builtin.type(types);
    }
  }
}
function timeArithmetic(op, a, b) {
  const pair = `${a.is} ${op} ${b.is}`;
  if (pair === "date - date") return { is: "duration" };
  if (pair === "duration / duration") return { is: "number", unit: "any" };
  if (["date + duration", "date - duration", "duration + date"].includes(pair)) return { is: "date" };
  return ["duration + duration", "duration - duration", "duration * number", "number * duration", "duration / number"].includes(pair) ? { is: "duration" } : null;
}
var timed = { date: ["year", "month", "day", "weekday"], duration: ["years", "months", "days", "hours", "minutes", "seconds"] };
var timeParts = (type, name2) => timed[type.is]?.includes(name2) ? { is: "number", unit: "any" } : void 0;
function itemOf2(type) {
  if (type.is === "list") return type.item;
  return type.is === "places" ? { is: "places", places: type.places.slice(0, 1), many: false } : type;
}
function insideOf(scope, item2) {
  const fields = item2.is === "places" ? item2.places[0]?.fields : void 0;
  return fields ? new Map([...scope, ...fields]) : scope;
}

// src/core/formula/syntax.ts
import { parser } from "@bpmn-io/lezer-feel";

// src/core/formula/plain.ts
var name = "([a-z][A-Za-z0-9]*)";
var text2 = '"([^"\\\\]*)"';
var equation = new RegExp(`^${name} (=|!=) ${text2}$`);
var membership = new RegExp(`^${name} in \\[("[^"\\\\]*"(?:, "[^"\\\\]*")*)\\]$`);
var containing = new RegExp(`^list contains\\(${name}, ${text2}\\)$`);
var item = new RegExp(text2, "g");
var words = /* @__PURE__ */ new Set(["if", "then", "else", "and", "or", "in", "not", "for", "return", "some", "every", "satisfies", "between", "instance", "of", "null", "true", "false", "function", "external"]);
function readPlain(source) {
  const equal2 = equation.exec(source);
  if (equal2 && !words.has(equal2[1])) {
    const [, left = "", op = "=", value = ""] = equal2;
    return { kind: "compare", op, left: { kind: "name", name: left, at: 0 }, right: { kind: "literal", value, at: left.length + op.length + 2 }, at: 0 };
  }
  const member2 = membership.exec(source);
  if (member2 && !words.has(member2[1])) {
    const [, left = "", list2 = ""] = member2;
    const at = left.length + 4;
    const tests = [...list2.matchAll(item)].map((found) => ({ kind: "equals", expr: { kind: "literal", value: found[1], at: at + 1 + found.index } }));
    return { kind: "in", value: { kind: "name", name: left, at: 0 }, tests, at: 0 };
  }
  const contains3 = containing.exec(source);
  if (contains3 && !words.has(contains3[1])) {
    const [, list2 = "", value = ""] = contains3;
    const at = "list contains(".length;
    return { kind: "call", name: "list contains", args: [{ kind: "name", name: list2, at }, { kind: "literal", value, at: at + list2.length + 2 }], at: 0 };
  }
  return null;
}
function readPlainCell(named2, cell) {
  const found = /^"([^"\\]*)"$/.exec(cell);
  if (!found) return null;
  return { kind: "in", value: { kind: "name", name: named2, at: 0 }, tests: [{ kind: "equals", expr: { kind: "literal", value: found[1], at: named2.length + 5 } }], at: 0 };
}

// src/core/formula/syntax.ts
var SyntaxFailure = class extends Error {
  constructor(problem) {
    super(problem.code);
    this.problem = problem;
  }
  problem;
};
var longest = 1e5;
var deepest = 200;
var mostItems = 2e3;
function parse(source) {
  if (source.length > longest) fail("formula.tooLong", 0, { most: longest });
  return readPlain(source) ?? parseFully(source);
}
function parseFully(source) {
  keepWithin(source);
  const top = parser.parse(source).topNode;
  let broken;
  top.cursor().iterate((node) => {
    if (node.type.isError && broken === void 0) broken = node.from;
  });
  if (broken !== void 0) fail("formula.syntax", broken, { near: source.slice(broken, broken + 12).trim() });
  const [only] = children(top);
  if (!only) fail("formula.empty", 0, {});
  return new Reader(source).expr(only, 0);
}
function parseCell(name2, cell) {
  if (cell.trim() === "-") return { kind: "literal", value: true, at: 0 };
  return readPlainCell(name2, cell) ?? parse(`${name2} in (${cell})`);
}
function keepWithin(source) {
  let depth = 0;
  let items = 0;
  let inText = false;
  for (let at = 0; at < source.length; at++) {
    const character = source[at];
    if (inText) {
      if (character === "\\") at++;
      else if (character === '"') inText = false;
    } else if (character === '"') inText = true;
    else if (character === "(" || character === "[" || character === "{") {
      if (++depth > deepest) fail("formula.tooDeep", at, { most: deepest });
    } else if (character === ")" || character === "]" || character === "}") depth--;
    else if (character === "," && ++items > mostItems) fail("formula.tooLong", at, { most: mostItems });
  }
}
function fail(code, at, params) {
  throw new SyntaxFailure({ code, at, params });
}
function children(node) {
  const found = [];
  for (let child = node.firstChild; child; child = child.nextSibling) found.push(child);
  return found;
}
var punctuation = /* @__PURE__ */ new Set(["(", ")", "[", "]", ",", "if", "then", "else", "and", "or", "in", "between"]);
var Reader = class {
  constructor(source) {
    this.source = source;
  }
  source;
  text(node) {
    return this.source.slice(node.from, node.to);
  }
  parts(node) {
    return children(node).filter((child) => !punctuation.has(child.name));
  }
  expr(node, depth) {
    if (depth > deepest) fail("formula.tooDeep", node.from, { most: deepest });
    const at = node.from;
    const parts = this.parts(node);
    const sub = (index) => {
      const part = parts[index];
      if (!part) fail("formula.syntax", at, { near: this.text(node).slice(0, 12) });
      return this.expr(part, depth + 1);
    };
    switch (node.name) {
      case "ParenthesizedExpression":
        return sub(0);
      case "NumericLiteral":
        return { kind: "literal", value: new Exact(this.text(node).replace(/\s/g, "")), at };
      case "StringLiteral":
        return { kind: "literal", value: JSON.parse(this.text(node)), at };
      case "BooleanLiteral":
        return { kind: "literal", value: this.text(node) === "true", at };
      case "null":
        return { kind: "literal", value: null, at };
      case "VariableName":
        return { kind: "name", name: this.text(node).replace(/\s+/g, " "), at };
      case "Conjunction":
        return { kind: "logic", op: "and", left: sub(0), right: sub(1), at };
      case "Disjunction":
        return { kind: "logic", op: "or", left: sub(0), right: sub(1), at };
      case "IfExpression":
        return { kind: "if", test: sub(0), then: sub(1), else: sub(2), at };
      case "List":
        return { kind: "list", items: parts.map((_, index) => sub(index)), at };
      case "ArithmeticExpression": {
        if (parts[0]?.name === "ArithOp") return { kind: "negate", of: sub(1), at };
        return { kind: "arithmetic", op: this.text(parts[1]), left: sub(0), right: sub(2), at };
      }
      case "FunctionInvocation":
        return this.call(node, depth);
      case "DateTimeLiteral":
        return this.time(node, depth);
      case "FilterExpression":
        return { kind: "filter", list: sub(0), by: sub(1), at };
      case "PathExpression":
        return { kind: "path", of: sub(0), name: this.text(parts[2]), at };
      case "QuantifiedExpression":
        return { kind: "quantified", every: parts[0]?.name === "every", over: this.iterations(parts[1], depth), test: sub(3), at };
      case "ForExpression":
        return { kind: "for", over: this.iterations(parts[1], depth), body: sub(3), at };
      case "Comparison":
        return this.comparison(node, depth);
      default:
        return fail("formula.unsupported", at, { what: this.text(node).slice(0, 40) });
    }
  }
  iterations(node, depth) {
    return (node ? this.parts(node) : []).map((each) => {
      const [name2, context] = this.parts(each);
      const [from, , to] = context ? this.parts(context) : [];
      if (!name2 || !from) fail("formula.syntax", each.from, { near: this.text(each).slice(0, 12) });
      return { name: this.text(name2), list: this.expr(from, depth + 1), ...to ? { to: this.expr(to, depth + 1) } : {} };
    });
  }
  /** A date or duration written out: `@"2026-06-01"`, `date("2026-06-01")`, `duration("P1M")`. */
  time(node, depth) {
    const [first2] = this.parts(node);
    if (first2?.name !== "AtLiteral") return this.call(node, depth);
    const written3 = JSON.parse(this.text(this.parts(first2)[0]));
    const value = Day.read(written3) ?? Span.read(written3);
    return value ? { kind: "literal", value, at: node.from } : fail("formula.unsupported", node.from, { what: this.text(node).slice(0, 40) });
  }
  call(node, depth) {
    const [name2, args] = this.parts(node);
    if (!name2 || args && args.name !== "PositionalParameters") fail("formula.unsupported", node.from, { what: this.text(node) });
    return {
      kind: "call",
      name: this.text(name2).replace(/\s+/g, " "),
      args: args ? this.parts(args).map((arg) => this.expr(arg, depth + 1)) : [],
      at: node.from
    };
  }
  comparison(node, depth) {
    const at = node.from;
    const parts = this.parts(node);
    const keyword = children(node).find((child) => child.name === "in" || child.name === "between")?.name;
    const value = this.expr(parts[0], depth + 1);
    if (keyword === "between") {
      const [low, high] = [this.expr(parts[1], depth + 1), this.expr(parts[2], depth + 1)];
      return { kind: "in", value, tests: [{ kind: "interval", low, high, lowOpen: false, highOpen: false }], at };
    }
    if (keyword === "in") {
      const tests = parts.slice(1).flatMap((part) => this.tests(part, depth + 1));
      return { kind: "in", value, tests, at };
    }
    return { kind: "compare", op: this.text(parts[1]), left: value, right: this.expr(parts[2], depth + 1), at };
  }
  tests(node, depth) {
    const parts = this.parts(node);
    switch (node.name) {
      case "PositiveUnaryTests":
      case "PositiveUnaryTest":
        return parts.flatMap((part) => this.tests(part, depth + 1));
      case "ParenthesizedExpression":
        return parts[0]?.name === "SimplePositiveUnaryTest" ? this.tests(parts[0], depth + 1) : [{ kind: "equals", expr: this.expr(node, depth) }];
      case "SimplePositiveUnaryTest": {
        const [first2, second] = parts;
        if (first2?.name === "Interval") return this.tests(first2, depth + 1);
        if (first2?.name === "CompareOp") return [{ kind: "compare", op: this.text(first2), expr: this.expr(second, depth + 1) }];
        return [{ kind: "equals", expr: this.expr(first2, depth + 1) }];
      }
      case "Interval": {
        const inner = parts.filter((part) => part.name !== "..");
        const text3 = this.text(node);
        return [
          {
            kind: "interval",
            low: this.expr(inner[0], depth + 1),
            high: this.expr(inner[1], depth + 1),
            lowOpen: !text3.startsWith("["),
            highOpen: !text3.endsWith("]")
          }
        ];
      }
      case "List":
        return parts.map((part) => ({ kind: "equals", expr: this.expr(part, depth + 1) }));
      default:
        return [{ kind: "equals", expr: this.expr(node, depth) }];
    }
  }
};

// src/core/formula/bind.ts
var nothing = (at) => ({ kind: "literal", value: null, at });
var bare = (at) => {
  throw new SyntaxFailure({ code: "formula.unsupported", at, params: { what: "place" } });
};
var bind = (expr, scope) => new Binder().expr(expr, scope);
var Binder = class {
  /** Whether a field was read that the place at hand does not have. */
  absent = false;
  expr(expr, scope) {
    const of = (sub) => this.expr(sub, scope);
    switch (expr.kind) {
      case "literal":
        return expr;
      case "name":
        return this.named(expr, scope);
      case "negate":
        return { ...expr, of: of(expr.of) };
      case "compare":
        return this.ofNothing(expr, scope) ?? { ...expr, left: of(expr.left), right: of(expr.right) };
      case "arithmetic":
      case "logic":
        return { ...expr, left: of(expr.left), right: of(expr.right) };
      case "in":
        return { ...expr, value: of(expr.value), tests: expr.tests.map((test) => this.test(test, scope)) };
      case "if":
        return { ...expr, test: of(expr.test), then: of(expr.then), else: of(expr.else) };
      case "list":
        return { ...expr, items: expr.items.map(of) };
      case "call":
        return this.call(expr, scope);
      case "path":
        return this.path(expr, scope);
      case "filter": {
        if (this.places(expr, scope)) return bare(expr.at);
        const item2 = withLocal(scope, "item", { is: "unknown" });
        return { ...expr, list: of(expr.list), by: this.expr(expr.by, item2.scope), slot: item2.slot };
      }
      case "quantified":
        return this.quantified(expr, scope);
      case "for": {
        const [first2] = expr.over;
        const places = first2 && this.places(first2.list, scope);
        if (!first2 || !places) return this.loop(expr, scope);
        if (expr.over.length > 1) return bare(expr.at);
        return this.gather(places, (place) => this.expr(expr.body, local(scope, first2.name, place)), expr.at);
      }
      case "pick":
      case "gather":
        return expr;
    }
  }
  named(expr, scope) {
    const binding = scope.get(expr.name);
    if (!binding) throw new Error(`unchecked name ${expr.name}`);
    if (binding.type.is === "places") return bare(expr.at);
    if (binding.absent) this.absent = true;
    return binding.expr ?? { kind: "name", name: binding.id ?? expr.name, slot: binding.slot, at: expr.at };
  }
  /** The length of what is typed under a name; null where the name is something else. */
  lengthOf(expr, scope) {
    const type = expr?.kind === "name" ? scope.get(expr.name)?.type : void 0;
    return type?.is === "text" ? type.length ?? null : null;
  }
  /** A typed text compared with nothing: its length is, too. */
  ofNothing(expr, scope) {
    const isNothing = (each) => each.kind === "literal" && each.value === null;
    const length = isNothing(expr.right) ? this.lengthOf(expr.left, scope) : isNothing(expr.left) ? this.lengthOf(expr.right, scope) : null;
    return length && { ...expr, left: length, right: nothing(expr.at) };
  }
  test(test, scope) {
    return test.kind === "interval" ? { ...test, low: this.expr(test.low, scope), high: this.expr(test.high, scope) } : { ...test, expr: this.expr(test.expr, scope) };
  }
  call(expr, scope) {
    const { name: name2, args, at } = expr;
    if (name2 === "today" && args.length === 0) return this.named({ kind: "name", name: name2, at }, scope);
    const length = name2 === "string length" ? this.lengthOf(args[0], scope) : null;
    if (length) return length;
    const places = name2 === "count" && args[0] ? this.places(args[0], scope) : null;
    if (!places) return { ...expr, args: args.map((arg) => this.expr(arg, scope)) };
    const one = { kind: "literal", value: true, at };
    return { kind: "call", name: "count", args: [this.gather(places, () => one, at)], at };
  }
  path(expr, scope) {
    const { name: name2, at } = expr;
    const places = this.places(expr.of, scope);
    if (places) {
      const read = ({ fields }) => this.named({ kind: "name", name: name2, at }, fields);
      const [only] = places;
      if (typeOf(expr.of, scope).many) return this.gather(places, read, at);
      return only ? { kind: "if", test: only.when, then: read(only), else: nothing(at), at } : nothing(at);
    }
    const { type, several } = typeOf(expr.of, scope);
    const found = type.is === "text" ? type.facts?.numbers.get(name2) : void 0;
    const of = this.expr(expr.of, scope);
    if (!found) return type.is === "text" ? bare(at) : { ...expr, of };
    if (!several) return { kind: "pick", of, cases: found.cases, at };
    const items = found.cases.map(([option, value]) => ({ when: contains2(of, option, at), value }));
    return { kind: "gather", items, at };
  }
  quantified(expr, scope) {
    const [first2, ...rest] = expr.over;
    const places = first2 && this.places(first2.list, scope);
    if (!first2 || !places) return this.loop(expr, scope);
    const { at, every } = expr;
    const inner = rest.length > 0 ? { ...expr, over: rest } : expr.test;
    return places.reduce((all2, place) => {
      const test = this.expr(inner, local(scope, first2.name, place));
      const one = every ? { kind: "logic", op: "or", left: { kind: "call", name: "not", args: [place.when], at }, right: test, at } : { kind: "logic", op: "and", left: place.when, right: test, at };
      return { kind: "logic", op: every ? "and" : "or", left: all2, right: one, at };
    }, { kind: "literal", value: every, at });
  }
  loop(expr, scope) {
    let inner = scope;
    const over = expr.over.map((each) => {
      const bound2 = { list: this.expr(each.list, inner), ...each.to ? { to: this.expr(each.to, inner) } : {} };
      const made2 = withLocal(inner, each.name, { is: "unknown" });
      inner = made2.scope;
      return { name: each.name, slot: made2.slot, ...bound2 };
    });
    return expr.kind === "for" ? { ...expr, over, body: this.expr(expr.body, inner) } : { ...expr, over, test: this.expr(expr.test, inner) };
  }
  /** Places that do not have what is read of them are left out. */
  gather(places, value, at) {
    const items = places.flatMap((place) => {
      this.absent = false;
      const item2 = { when: place.when, value: value(place) };
      return this.absent ? [] : [item2];
    });
    this.absent = false;
    return { kind: "gather", items, at };
  }
  /** The places an expression stands for; null where it is a value. */
  places(expr, scope) {
    if (expr.kind !== "name" && expr.kind !== "path" && expr.kind !== "filter") return null;
    if (expr.kind === "filter") {
      const all2 = this.places(expr.list, scope);
      if (!all2) return null;
      if (expr.by.kind === "literal" && typeof expr.by.value === "object" && expr.by.value !== null) return all2.slice(Number(expr.by.value) - 1, Number(expr.by.value));
      return all2.map((place) => ({
        ...place,
        when: { kind: "logic", op: "and", left: place.when, right: this.expr(expr.by, insideOf(local(scope, "item", place), { is: "places", places: [place], many: false })), at: expr.at }
      }));
    }
    const { type } = typeOf(expr, scope);
    return type.is === "places" ? type.places : null;
  }
};
var local = (scope, name2, place) => new Map(scope).set(name2, { slot: NaN, type: { is: "places", places: [place], many: false } });
function typeOf(expr, scope) {
  const type = check(expr, scope, []);
  const several = type.is === "list";
  return { type: type.is === "list" ? type.item : type, several, many: type.is === "places" && type.many };
}
var contains2 = (list2, option, at) => ({ kind: "call", name: "list contains", args: [list2, { kind: "literal", value: option, at }], at });

// src/core/formula/evaluate.ts
function compile(expr) {
  const sub = compile;
  switch (expr.kind) {
    case "literal": {
      const { value } = expr;
      return () => value;
    }
    case "name": {
      const { slot } = expr;
      if (slot === void 0) throw new Error(`unbound name ${expr.name}`);
      return (env) => env(slot);
    }
    case "negate": {
      const of = sub(expr.of);
      return (env) => {
        const value = of(env);
        return value instanceof Exact ? value.negated() : null;
      };
    }
    case "arithmetic": {
      const [left, right, { op }] = [sub(expr.left), sub(expr.right), expr];
      return (env) => arithmetic(op, left(env), right(env));
    }
    case "compare": {
      const [left, right, { op }] = [sub(expr.left), sub(expr.right), expr];
      return (env) => compareValues(op, left(env), right(env));
    }
    case "logic": {
      const [left, right] = [sub(expr.left), sub(expr.right)];
      return expr.op === "and" ? (env) => and(left(env), () => right(env)) : (env) => or(left(env), () => right(env));
    }
    case "in": {
      const value = sub(expr.value);
      const tests = expr.tests.map(compileTest);
      return (env) => {
        const found = value(env);
        return tests.reduce((known2, test) => or(known2, () => test(found, env)), false);
      };
    }
    case "if": {
      const [test, then, otherwise] = [sub(expr.test), sub(expr.then), sub(expr.else)];
      return (env) => test(env) === true ? then(env) : otherwise(env);
    }
    case "list": {
      const items = expr.items.map(sub);
      return (env) => items.map((item2) => item2(env));
    }
    case "call": {
      const builtin = builtins[expr.name];
      if (!builtin) throw new Error(`unchecked function ${expr.name}`);
      const args = expr.args.map(sub);
      return (env) => builtin.apply(args.map((arg) => arg(env)));
    }
    case "path": {
      const [of, { name: name2 }] = [sub(expr.of), expr];
      return (env) => partOf(of(env), name2);
    }
    case "filter":
      return filter(expr.list, expr.by, expr.slot);
    case "quantified": {
      const { every } = expr;
      return iterated(expr.over, expr.test, (found) => {
        if (found.includes(!every)) return !every;
        return found.every((each) => typeof each === "boolean") ? every : null;
      });
    }
    case "for":
      return iterated(expr.over, expr.body, (found) => found);
    case "pick": {
      const of = sub(expr.of);
      const cases = new Map(expr.cases.map(([name2, value]) => [name2, sub(value)]));
      return (env) => {
        const name2 = of(env);
        return (typeof name2 === "string" ? cases.get(name2)?.(env) : void 0) ?? null;
      };
    }
    case "gather": {
      const items = expr.items.map(({ when, value }) => ({ when: sub(when), value: sub(value) }));
      return (env) => items.flatMap(({ when, value }) => when(env) === true ? [value(env)] : []);
    }
  }
}
var mostRounds = 1e4;
function filter(list2, by, own) {
  const items = compile(list2);
  const test = compile(by);
  return (env) => {
    const all2 = asList(items(env)) ?? [];
    const at = test((slot) => slot === own ? all2[0] ?? null : env(slot));
    if (at instanceof Exact) return at.isInteger() ? all2[at.lt(0) ? all2.length + at.toNumber() : at.toNumber() - 1] ?? null : null;
    if (all2.length > mostRounds) return null;
    return all2.filter((item2) => test((slot) => slot === own ? item2 : env(slot)) === true);
  };
}
function iterated(over, body, gather) {
  const loops = over.map(({ slot, list: list2, to }) => {
    const [from, until] = [compile(list2), to && compile(to)];
    return { slot, items: (env) => until ? counted(from(env), until(env)) : asList(from(env)) };
  });
  const result = compile(body);
  return (env) => {
    const found = [];
    const visit = (depth, at) => {
      const loop = loops[depth];
      if (!loop) return found.push(result(at)) <= mostRounds;
      const items = loop.items(at);
      return items?.every((item2) => visit(depth + 1, (slot) => slot === loop.slot ? item2 : at(slot))) ?? false;
    };
    return visit(0, env) ? gather(found) : null;
  };
}
function counted(from, to) {
  if (!(from instanceof Exact) || !(to instanceof Exact) || !from.isInteger() || !to.isInteger()) return null;
  const count = to.minus(from).abs().toNumber() + 1;
  if (count > mostRounds) return null;
  const step = to.lt(from) ? -1 : 1;
  return Array.from({ length: count }, (_, index) => from.plus(step * index));
}
function compileTest(test) {
  if (test.kind === "interval") {
    const [low, high] = [compile(test.low), compile(test.high)];
    const [above, below] = [test.lowOpen ? ">" : ">=", test.highOpen ? "<" : "<="];
    return (value, env) => and(compareValues(above, value, low(env)), () => compareValues(below, value, high(env)));
  }
  const expr = compile(test.expr);
  if (test.kind === "compare") return (value, env) => compareValues(test.op, value, expr(env));
  return (value, env) => {
    const other = expr(env);
    return Array.isArray(other) && !Array.isArray(value) ? other.some((each) => equal(each, value) === true) : equal(value, other);
  };
}
var truth = (value) => typeof value === "boolean" ? value : null;
function and(left, right) {
  const a = truth(left);
  if (a === false) return false;
  const b = truth(right());
  return b === false ? false : a === null || b === null ? null : true;
}
function or(left, right) {
  const a = truth(left);
  if (a === true) return true;
  const b = truth(right());
  return b === true ? true : a === null || b === null ? null : false;
}

// src/core/formula/index.ts
function compileFormula(source, scope, wanted2) {
  return compileParsed(source, () => parse(source), scope, wanted2);
}
function compileCell(name2, cell, scope) {
  return compileParsed(cell, () => parseCell(name2, cell), scope, { is: "yesno" });
}
function compileParsed(source, parsed, scope, wanted2) {
  let expr;
  try {
    expr = parsed();
  } catch (failure) {
    if (failure instanceof SyntaxFailure) return { ok: false, problems: [failure.problem] };
    throw failure;
  }
  const problems = [];
  const type = check(expr, scope, problems);
  if (problems.length === 0 && wanted2 && !fits(type, wanted2)) {
    const params = { wanted: describeType(wanted2), found: describeType(type) };
    problems.push({ code: "formula.resultType", at: 0, params });
  }
  if (problems.length > 0) return { ok: false, problems };
  return bound(source, expr, type, scope);
}
function bound(source, checked, type, scope) {
  try {
    return { ok: true, formula: formulaOf(bind(checked, scope), type, source) };
  } catch (failure) {
    if (failure instanceof SyntaxFailure) return { ok: false, problems: [failure.problem] };
    throw failure;
  }
}
var formulaOf = (expr, type, source = "") => ({ source, expr, type, names: [...namesIn(expr).keys()], run: compile(expr) });
function describeType(type) {
  return type.is === "number" && type.unit !== "any" ? `number [${writeUnit(type.unit)}]` : type.is;
}
function partsOf(expr) {
  switch (expr.kind) {
    case "literal":
    case "name":
      return [];
    case "negate":
    case "path":
      return [expr.of];
    case "arithmetic":
    case "compare":
    case "logic":
      return [expr.left, expr.right];
    case "if":
      return [expr.test, expr.then, expr.else];
    case "list":
      return expr.items;
    case "call":
      return expr.args;
    case "filter":
      return [expr.list, expr.by];
    case "quantified":
    case "for":
      return [...expr.over.flatMap(({ list: list2, to }) => to ? [list2, to] : [list2]), expr.kind === "for" ? expr.body : expr.test];
    case "in":
      return [expr.value, ...expr.tests.flatMap((test) => test.kind === "interval" ? [test.low, test.high] : [test.expr])];
    case "pick":
      return [expr.of, ...expr.cases.map(([, value]) => value)];
    case "gather":
      return expr.items.flatMap(({ when, value }) => [when, value]);
  }
}
function namesIn(expr, found = /* @__PURE__ */ new Map()) {
  if (expr.kind === "name") {
    if (expr.slot !== void 0 && expr.slot >= 0) found.set(expr.name, expr.slot);
  } else for (const part of partsOf(expr)) namesIn(part, found);
  return found;
}

// src/core/model/expressions.ts
var literal = (value) => ({ kind: "literal", value, at: 0 });
var named = (name2, slot) => ({ kind: "name", name: name2, slot, at: 0 });
var compared = (left, op, right) => ({ kind: "compare", op, left, right, at: 0 });
var holds = (list2, text3) => ({ kind: "call", name: "list contains", args: [list2, literal(text3)], at: 0 });
var negated = (of) => ({ kind: "call", name: "not", args: [of], at: 0 });
var all = (first2, second) => first2 && second ? { kind: "logic", op: "and", left: first2, right: second, at: 0 } : first2 ?? second;
var either = (left, right) => ({ kind: "logic", op: "or", left, right, at: 0 });
function literalOf(kind, value) {
  if (typeof value !== "string") return literal(value);
  return literal(kind === "number" ? exact(value) : kind === "date" ? Day.read(value) : value);
}

// src/core/model/grid.ts
function gridOf(of, least2, most, step, optional2 = false) {
  if (step.lte(0) || most.lt(least2)) return null;
  return { of, least: least2, step, count: most.minus(least2).div(step).floor().toNumber() + 1 + Number(optional2), optional: optional2 };
}
function codeOf(grid, written3) {
  if (written3 === null) return grid.optional ? 0 : null;
  const value = measure(grid, written3);
  const code = value?.minus(grid.least).div(grid.step).plus(Number(grid.optional));
  return code?.isInteger() && code.gte(Number(grid.optional)) && code.lt(grid.count) ? code.toNumber() : null;
}
function measure({ of }, written3) {
  if (of === "number") return readExact(written3);
  if (of === "length") return exact([...written3].length);
  const day2 = Day.read(written3);
  return day2 && exact(day2.number);
}
var measureAt = ({ least: least2, step, optional: optional2 }, code) => optional2 && code === 0 ? null : least2.plus(step.times(code - Number(optional2)));
function valueAt(grid, code) {
  const value = measureAt(grid, code);
  return value && grid.of === "day" ? Day.at(value.toNumber()) : value;
}
function plainAt(grid, code) {
  const value = valueAt(grid, code);
  if (value === null) return null;
  return grid.of === "length" ? "\xB7".repeat(Number(value)) : String(value);
}

// src/core/model/library.ts
function withClasses(document) {
  const names = document.classes ?? [];
  const found = names.flatMap((id2) => document.library?.classes?.find((each) => each.id === id2) ?? []);
  if (found.length === 0) return document;
  return {
    ...document,
    features: [...found.flatMap((each) => each.features ?? []), ...document.features],
    parameters: [...found.flatMap((each) => each.parameters ?? []), ...document.parameters],
    calculations: [...found.flatMap((each) => each.calculations ?? []), ...document.calculations],
    rules: [...found.flatMap((each) => each.rules ?? []), ...document.rules],
    sections: sectionsOf(document.sections, found)
  };
}
function sectionsOf(own, classes) {
  const given = classes.flatMap((each) => each.sections ?? []);
  const grown2 = own.map((section2) => ({ ...section2, rows: [...section2.rows, ...given.filter((each) => each.id === section2.id).flatMap((each) => each.rows)] }));
  return [...grown2, ...given.filter((section2, index) => !own.some((each) => each.id === section2.id) && given.findIndex((each) => each.id === section2.id) === index)];
}

// src/core/model/places.ts
var yesno3 = { is: "yesno" };
var anyNumber = { is: "number", unit: "any" };
var pure2 = { is: "number", unit: readUnit("") };
var deepest2 = 5;
var mostBuilds = 100;
var Declaration = class {
  constructor(report, modelOf) {
    this.report = report;
    this.modelOf = modelOf;
  }
  report;
  modelOf;
  drafts = [];
  slots = /* @__PURE__ */ new Map();
  picks = [];
  top(document) {
    const home = { prefix: "", document, scope: /* @__PURE__ */ new Map(), above: /* @__PURE__ */ new Map(), inside: [], brought: [] };
    this.add(home, "today", { kind: "context", id: "today", type: { is: "date" } }, { is: "date" });
    for (const input of document.context) {
      const type = { is: "text", of: new Set(input.values.map((value) => value.id)) };
      this.add(home, input.id, { kind: "context", id: input.id, type }, type);
    }
    this.fill(home, []);
    return home;
  }
  add(home, id2, entry, type, under) {
    if (home.scope.has(id2) || this.slots.has(entry.id)) this.report(entry.id, "model.duplicateId", { id: id2 });
    const slot = this.drafts.length;
    this.drafts.push({ entry, home, type, ...under ? { under } : {} });
    this.slots.set(entry.id, slot);
    if (!id2.includes("/")) home.scope.set(id2, { slot, type, id: entry.id });
    return named(entry.id, slot);
  }
  fill(home, within) {
    const { document, prefix, above } = home;
    for (const feature2 of document.features) if (!above.has(feature2.id) || !this.fromAbove(home, feature2.id, choiceType(feature2))) this.feature(home, feature2, within);
    for (const parameter2 of document.parameters) if (!above.has(parameter2.id) || !this.fromAbove(home, parameter2.id, this.typeOf(parameter2))) this.parameter(home, parameter2);
    for (const calculation2 of document.calculations) {
      const type = calculation2.type === "number" ? { is: "number", unit: readUnit(calculation2.unit ?? "") } : calculation2.type === "text" ? { is: "text" } : yesno3;
      this.add(home, calculation2.id, { kind: "calculation", id: prefix + calculation2.id, calculation: calculation2, formula: void 0 }, type);
    }
    if (document.properties && !home.scope.has("picked")) home.scope.set("picked", { slot: NaN, type: { is: "places", places: this.pickedPlaces(home), many: true } });
  }
  /** Takes a row from further out where one of this id reaches down. */
  fromAbove(home, id2, type) {
    const binding = home.above.get(id2);
    if (!binding) return false;
    const wide = this.drafts[binding.slot]?.entry;
    const own = home.document.parameters.find((each) => each.id === id2);
    const fits2 = type.is === binding.type.is && (type.is !== "text" || [...binding.type.of ?? []].every((option) => type.of?.has(option))) && (wide?.kind !== "number" || own?.type === "number" && own.unit === wide.parameter.unit && ["least", "most", "step"].every((key) => exact(own[key]).eq(wide.parameter[key]))) && (wide?.kind !== "date" || own?.type === "date" && own.least <= wide.parameter.least && wide.parameter.most <= own.most) && (wide?.kind !== "text" || own?.type === "text" && wide.parameter.most <= own.most);
    if (!fits2) this.report(home.prefix + id2, "model.reachesOther", { id: id2 });
    home.scope.set(id2, binding);
    return true;
  }
  typeOf(parameter2) {
    switch (parameter2.type) {
      case "number":
        return { is: "number", unit: readUnit(parameter2.unit) };
      case "date":
        return { is: "date" };
      case "yesno":
        return yesno3;
      case "text":
        return { is: "text" };
      case "choice":
        return choiceType(featureOf(parameter2));
    }
  }
  parameter(home, parameter2) {
    const id2 = home.prefix + parameter2.id;
    const type = this.typeOf(parameter2);
    const path = `parameters.${id2}`;
    const grid = (made2, shown) => {
      if (!made2) this.report(path, "model.badRange", shown);
      return made2 ?? { of: "number", least: exact(0), step: exact(1), count: 1, optional: false };
    };
    switch (parameter2.type) {
      case "choice": {
        const feature2 = featureOf(parameter2);
        this.checkFeature(path, feature2);
        this.add(home, parameter2.id, { kind: "feature", id: id2, feature: feature2, many: false }, type);
        break;
      }
      case "yesno": {
        const own = this.add(home, parameter2.id, { kind: "yesno", id: id2, parameter: parameter2 }, type);
        if (parameter2.item) this.bring(home, { on: id2, row: id2, name: parameter2.name, when: own, thing: parameter2, place: "" });
        break;
      }
      case "number": {
        const { least: least2, most, step, optional: optional2 } = parameter2;
        this.add(home, parameter2.id, { kind: "number", id: id2, parameter: parameter2, grid: grid(gridOf("number", exact(least2), exact(most), exact(step), optional2), { least: least2, most, step }) }, type);
        break;
      }
      case "date": {
        const { least: least2, most, optional: optional2 } = parameter2;
        const [from, until] = [Day.read(least2), Day.read(most)];
        const made2 = from && until && gridOf("day", exact(from.number), exact(until.number), exact(1), optional2);
        this.add(home, parameter2.id, { kind: "date", id: id2, parameter: parameter2, grid: grid(made2, { least: least2, most, step: "1" }) }, type);
        break;
      }
      case "text": {
        const made2 = gridOf("length", exact(1), exact(parameter2.most), exact(1), parameter2.optional);
        const length = this.drafts.length;
        const own = this.add(home, `${parameter2.id}/length`, { kind: "length", id: `${id2}/length`, text: id2, grid: grid(made2, { least: "1", most: String(parameter2.most), step: "1" }) }, pure2);
        this.add(home, parameter2.id, { kind: "text", id: id2, parameter: parameter2, length }, { is: "text", length: own });
      }
    }
  }
  checkFeature(path, { options: options2, least: least2, most, usual = [] }) {
    const ids = options2.map((option) => option.id);
    const twice = new Set(ids).size < ids.length ? ids.find((id2, index) => ids.indexOf(id2) !== index) : void 0;
    if (twice !== void 0) this.report(path, "model.duplicateId", { id: twice });
    if (least2 > most || least2 > ids.length) this.report(path, "model.cardinality", { least: least2, options: ids.length });
    for (const each of usual) if (!ids.includes(each)) this.report(path, "model.badTargetValue", { value: each });
  }
  feature(home, feature2, within) {
    const id2 = home.prefix + feature2.id;
    const many = feature2.most > 1;
    const type = choiceType(feature2);
    this.checkFeature(`features.${id2}`, feature2);
    const own = this.add(home, feature2.id, { kind: "feature", id: id2, feature: feature2, many }, type);
    const { properties = [], items = {} } = home.document;
    const telling = feature2.options.filter((option) => option.item !== void 0 || option.quantity !== void 0 || option.model !== void 0);
    if (telling.length === 0) return;
    const numbers3 = /* @__PURE__ */ new Map();
    const options2 = /* @__PURE__ */ new Map();
    for (const property of properties) {
      const cases = telling.flatMap((option) => {
        const value = option.item === void 0 ? void 0 : items[option.item]?.[property.id];
        return value === void 0 ? [] : [[option.id, literal(exact(value))]];
      });
      if (cases.length > 0) numbers3.set(property.id, { unit: readUnit(property.unit), cases });
    }
    const quantities = [];
    for (const option of feature2.options) {
      const when = many ? holds(own, option.id) : compared(own, "=", literal(option.id));
      const quantity2 = option.item !== void 0 || option.quantity !== void 0 || option.model !== void 0 ? this.bring(home, { on: `${id2}.${option.id}`, row: id2, option: option.id, name: option.name, when, thing: option, place: `${feature2.id}/${option.id}/` }) : literal(exact(1));
      quantities.push([option.id, quantity2]);
      const places = option.model === void 0 ? [] : this.builds(home, option, `${feature2.id}/${option.id}`, when, quantity2, within);
      if (option.model !== void 0) options2.set(option.id, { is: "places", places, many: mostOf(option) > 1 });
      else if (many && (numbers3.size > 0 || option.quantity !== void 0)) options2.set(option.id, { is: "places", places: [placeOfOption(option, when, quantity2, numbers3)], many: false });
    }
    if (telling.some((option) => option.quantity !== void 0)) numbers3.set("quantity", { unit: readUnit(""), cases: quantities });
    const clash = [...numbers3.keys()].find((each) => feature2.options.some((option) => option.id === each));
    if (clash !== void 0 && options2.has(clash)) this.report(`features.${id2}`, "model.duplicateId", { id: clash });
    const facts = { numbers: numbers3, options: options2 };
    const text3 = { is: "text", of: new Set(feature2.options.map((option) => option.id)), facts };
    const told = many ? { is: "list", item: text3 } : text3;
    home.scope.set(feature2.id, { slot: this.slots.get(id2), type: told, id: id2 });
  }
  /** Notes what an option or a yes/no parameter brings, and gives how many. */
  bring(home, { on, row, option, name: name2, when, thing, place }) {
    const { item: item2, quantity: quantity2 } = thing;
    const id2 = `${place === "" ? `${thing.id}/` : place}quantity`;
    const many = quantity2 === void 0 ? literal(exact(1)) : this.quantity(home, id2, quantity2, { feature: row, option: option ?? "" }, all(home.when, when), name2);
    const grows = typeof quantity2 === "object" ? quantity2.grows ?? "perParent" : "perParent";
    this.picks.push({ on, row, name: name2, grows, home, ...option === void 0 ? {} : { option }, ...item2 === void 0 ? {} : { item: item2 }, ...quantity2 === void 0 ? {} : { quantity: home.prefix + id2 } });
    if (item2 !== void 0) home.brought.push({ when: all(home.when, when), quantity: many, item: item2, numbers: home.document.items?.[item2] ?? {} });
    return many;
  }
  quantity(home, id2, quantity2, quantityOf, under, name2) {
    const full = home.prefix + id2;
    if (typeof quantity2 === "string" || quantity2.fixed === true) {
      const formula = typeof quantity2 === "string" ? quantity2 : quantity2.usual;
      return this.add(home, id2, { kind: "calculation", id: full, calculation: { id: id2, name: name2, type: "number", formula }, formula: void 0, quantityOf }, anyNumber);
    }
    const { least: least2 = "1", most, step = "1" } = quantity2;
    const grid = gridOf("number", exact(least2), exact(most), exact(step));
    if (!grid) this.report(`features.${full}`, "model.badRange", { least: least2, most, step });
    const parameter2 = { id: id2, type: "number", name: name2, unit: "", least: least2, most, step };
    return this.add(home, id2, { kind: "number", id: full, parameter: parameter2, grid: grid ?? { of: "number", least: exact(1), step: exact(1), count: 1, optional: false }, quantityOf }, pure2, under);
  }
  /** The builds that an option brings, as places; the second exists where two are taken, and so on. */
  builds(home, option, way2, taken, quantity2, within) {
    const id2 = option.model;
    if (within.includes(id2) || id2 === home.document.id || within.length >= deepest2) {
      this.report(`features.${home.prefix}${way2.replace("/", ".")}`, "model.cycle", { id: id2 });
      return [];
    }
    const document = this.modelOf(id2);
    if (!document) {
      this.report(`features.${home.prefix}${way2.replace("/", ".")}`, "model.unknownModel", { id: id2 });
      return [];
    }
    const most = mostOf(option);
    if (most > mostBuilds) this.report(`features.${home.prefix}${way2.replace("/", ".")}`, "model.badRange", { least: "1", most: String(most), step: "1" });
    return Array.from({ length: Math.min(most, mostBuilds) }, (_, at) => {
      const exists = all(home.when, all(taken, option.quantity === void 0 ? void 0 : compared(quantity2, ">=", literal(exact(at + 1)))));
      const inner = { prefix: `${home.prefix}${way2}/${String(at + 1)}/`, document, scope: /* @__PURE__ */ new Map(), when: exists, above: this.reachingDown(home), inside: [], brought: [] };
      this.contextOf(inner, home);
      this.fill(inner, [...within, home.document.id]);
      home.inside.push({ on: `${home.prefix}${way2.replace("/", ".")}`, index: at + 1, home: inner });
      home.brought.push(...inner.brought);
      return { when: exists, fields: inner.scope };
    });
  }
  reachingDown(home) {
    const { features, parameters } = home.document;
    const own = [...features, ...parameters].filter((each) => each.reachesDown).flatMap((each) => {
      const binding = home.scope.get(each.id);
      return binding ? [[each.id, binding]] : [];
    });
    return new Map([...home.above, ...own]);
  }
  contextOf(inner, outer) {
    inner.scope.set("today", outer.scope.get("today"));
    for (const input of inner.document.context) {
      const binding = outer.scope.get(input.id);
      const given = this.drafts[binding?.slot ?? -1]?.entry;
      if (binding && given?.kind === "context") inner.scope.set(input.id, binding);
      else {
        this.report(`${inner.prefix}${input.id}`, "model.unknownContext", { id: input.id });
        inner.scope.set(input.id, { slot: 0, type: { is: "unknown" } });
      }
    }
  }
  /** What is picked here and inside, with the numbers that this document declares. */
  pickedPlaces(home) {
    const { properties = [] } = home.document;
    return home.brought.map(({ when, quantity: quantity2, item: item2, numbers: numbers3 }) => {
      const fields = /* @__PURE__ */ new Map([
        ["quantity", { slot: NaN, type: pure2, expr: quantity2 }],
        ["item", { slot: NaN, type: { is: "text" }, expr: literal(item2) }]
      ]);
      for (const { id: id2, unit } of properties) {
        const value = numbers3[id2];
        fields.set(id2, { slot: NaN, type: { is: "number", unit: readUnit(unit) }, expr: literal(value === void 0 ? null : exact(value)), absent: value === void 0 });
      }
      return { when, fields };
    });
  }
};
function placeOfOption(option, when, quantity2, numbers3) {
  const fields = /* @__PURE__ */ new Map([["quantity", { slot: NaN, type: pure2, expr: quantity2 }]]);
  for (const [id2, { unit, cases }] of numbers3) {
    const expr = cases.find(([each]) => each === option.id)?.[1];
    fields.set(id2, { slot: NaN, type: { is: "number", unit }, expr: expr ?? literal(null), absent: !expr });
  }
  return { when, fields };
}
var mostOf = ({ quantity: quantity2 }) => typeof quantity2 === "object" ? Number(quantity2.most) : 1;
function choiceType({ options: options2, most }) {
  const text3 = { is: "text", of: new Set(options2.map((option) => option.id)) };
  return most > 1 ? { is: "list", item: text3 } : text3;
}
var featureOf = ({ id: id2, name: name2, short, help, options: options2, optional: optional2, usual }) => ({
  id: id2,
  name: name2,
  least: optional2 ? 0 : 1,
  most: 1,
  options: options2,
  ...short ? { short } : {},
  ...help ? { help } : {},
  ...usual === void 0 ? {} : { usual: [usual] }
});

// src/core/model/typed.ts
function readsTyped(entries) {
  if (!entries.some((entry) => entry.kind === "text")) return () => false;
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const known2 = /* @__PURE__ */ new Map();
  const reads = ({ names }) => names.some((name2) => {
    const before = known2.get(name2);
    if (before !== void 0) return before;
    const entry = byId.get(name2);
    const found = entry?.kind === "text" || entry?.kind === "calculation" && reads(entry.formula);
    known2.set(name2, found);
    return found;
  });
  return reads;
}

// src/core/model/compile.ts
function compileModel(given) {
  try {
    documentSchema.validateSync(given, { abortEarly: false });
  } catch (failure) {
    if (!(failure instanceof ValidationError)) throw failure;
    const errors = failure.inner.length > 0 ? failure.inner : [failure];
    return { ok: false, problems: errors.map((each) => ({ path: each.path ?? "", code: "model.shape", params: { what: each.message } })) };
  }
  return new Compiler(given, /* @__PURE__ */ new Map(), []).run();
}
var mostEntries = 1e5;
var Compiler = class _Compiler {
  constructor(given, inner, within) {
    this.inner = inner;
    this.within = within;
    this.document = withClasses(given);
    for (const id2 of given.classes ?? []) if (!given.library?.classes?.some((each) => each.id === id2)) this.report("classes", "model.unknownClass", { id: id2 });
    this.declaration = new Declaration(
      (path, code, params) => this.report(path, code, params),
      (id2) => this.modelOf(id2)?.document ?? null
    );
  }
  inner;
  within;
  problems = [];
  document;
  declaration;
  formulas = /* @__PURE__ */ new Map();
  places = /* @__PURE__ */ new Map();
  shown = /* @__PURE__ */ new Map();
  run() {
    const { document } = this;
    this.texts(document, "");
    this.ruleIds();
    const home = this.declaration.top(document);
    if (this.declaration.drafts.length > mostEntries) this.report("", "model.tooLarge", { most: mostEntries });
    else this.sections();
    if (this.problems.some((problem) => problem.code === "model.tooLarge")) return { ok: false, problems: this.problems };
    const homes = everyHome(home);
    for (const each of homes) {
      this.calculations(each);
      this.shows(each);
    }
    const rules = homes.flatMap((each) => each.document.rules.flatMap((rule2) => this.rule(each, rule2)));
    const proposals = this.proposals(homes);
    this.parts(home);
    if (this.problems.length === 0) this.cycles();
    if (this.problems.length === 0) this.typedContent(rules, proposals);
    if (this.problems.length > 0) return { ok: false, problems: this.problems };
    const entries = this.declaration.drafts.map((_, slot) => this.entryOf(slot));
    return { ok: true, model: { document, entries, scope: home.scope, slots: this.declaration.slots, rules, proposals, picks: this.picks(), sections: sectionsOf2(home), formulas: this.formulas } };
  }
  report(path, code, params = {}, at) {
    this.problems.push({ path, code, params, at });
  }
  /** A model of the library, compiled by itself once. What is wrong with it is told at its place in the library. */
  modelOf(id2) {
    const known2 = this.inner.get(id2);
    if (known2 !== void 0) return known2;
    const given = this.document.library?.models?.find((each) => each.id === id2);
    if (!given || this.within.includes(id2)) return null;
    const { library } = this.document;
    const result = new _Compiler(library ? { ...given, library } : given, this.inner, [...this.within, this.document.id]).run();
    this.inner.set(id2, result.ok ? result.model : null);
    if (!result.ok) for (const problem of result.problems) this.problems.push({ ...problem, path: `library.models.${id2}.${problem.path}` });
    return result.ok ? result.model : null;
  }
  ruleIds() {
    const { context, rules } = this.document;
    const ruleIds = /* @__PURE__ */ new Set();
    for (const rule2 of rules) {
      for (const [input, values] of Object.entries(rule2.where ?? {})) {
        const known2 = context.find((each) => each.id === input)?.values.map((each) => each.id);
        const wrong = known2 ? values.find((value) => !known2.includes(value)) : input;
        if (wrong !== void 0) this.report(`rules.${rule2.id}.where`, "model.unknownTarget", { id: wrong });
      }
      if (ruleIds.has(rule2.id)) this.report(`rules.${rule2.id}`, "model.duplicateId", { id: rule2.id });
      ruleIds.add(rule2.id);
    }
  }
  /** The slot of a row or calculation by the id that a place calls it. */
  slotOf({ scope, prefix }, id2) {
    return this.declaration.slots.get(scope.get(id2)?.id ?? prefix + id2);
  }
  entry(home, id2) {
    const slot = this.slotOf(home, id2);
    return slot === void 0 ? void 0 : this.declaration.drafts[slot]?.entry;
  }
  typeAt(home, id2) {
    return this.declaration.drafts[this.slotOf(home, id2) ?? -1]?.type;
  }
  nameOf(home, id2) {
    const slot = this.slotOf(home, id2);
    return named((this.declaration.drafts[slot]?.entry).id, slot);
  }
  sections() {
    const placed = /* @__PURE__ */ new Set();
    for (const section2 of this.document.sections) {
      for (const row of section2.rows) {
        const kind = this.declaration.drafts[this.declaration.slots.get(row) ?? -1]?.entry.kind;
        if (kind === void 0 || kind === "context" || kind === "calculation") this.report(`sections.${section2.id}`, "model.unknownRow", { id: row });
        if (placed.has(row)) this.report(`sections.${section2.id}`, "model.rowTwice", { id: row });
        placed.add(row);
      }
    }
  }
  calculations(home) {
    for (const draft of this.declaration.drafts) {
      const { entry, type } = draft;
      if (draft.home !== home || entry.kind !== "calculation") continue;
      const { quantityOf, calculation: calculation2 } = entry;
      const path = quantityOf ? quantityOf.option === "" ? `parameters.${quantityOf.feature}.quantity` : `features.${quantityOf.feature}.${quantityOf.option}.quantity` : `calculations.${entry.id}`;
      const formula = this.formula(home, path, calculation2.formula, type);
      if (formula) draft.entry = { ...entry, formula };
      if (formula && quantityOf && home.prefix === "") this.formulas.set(path, formula);
    }
  }
  /** No calculation may lead back to itself. */
  cycles() {
    const { drafts, slots } = this.declaration;
    const state = /* @__PURE__ */ new Map();
    const visit = (slot) => {
      const entry = drafts[slot]?.entry;
      if (entry?.kind !== "calculation" || state.get(slot) === "done") return;
      if (state.get(slot) === "begun") {
        this.report(`calculations.${entry.id}`, "model.cycle", { id: entry.id });
        return;
      }
      state.set(slot, "begun");
      for (const name2 of entry.formula.names) visit(slots.get(name2));
      state.set(slot, "done");
    };
    drafts.forEach((_, slot) => visit(slot));
  }
  formula({ scope }, path, source, wanted2) {
    const compiled = compileFormula(source, scope, wanted2);
    if (compiled.ok) return compiled.formula;
    this.formulaProblems(path, compiled.problems);
    return void 0;
  }
  formulaProblems(path, problems) {
    for (const { code, at, params } of problems) this.report(path, code, params, at);
  }
  condition(home, path, source) {
    return source === void 0 ? void 0 : this.formula(home, path, source, yesno3);
  }
  shows(home) {
    for (const rule2 of home.document.rules) {
      if (rule2.kind !== "show") continue;
      const path = `rules.${home.prefix}${rule2.id}`;
      const target = this.entry(home, rule2.of);
      if (!target || target.kind === "context" || target.kind === "calculation") {
        this.report(path, "model.unknownTarget", { id: rule2.of });
        continue;
      }
      const when = this.condition(home, `${path}.when`, rule2.when);
      if (when && target.id.startsWith(home.prefix)) {
        const at = target.kind === "text" ? `${target.id}/length` : target.id;
        this.shown.set(at, { rule: this.placed(home, { ...rule2, of: at }), when });
      }
    }
  }
  /** A rule under the way to its place. */
  placed(home, rule2) {
    return home.prefix === "" ? rule2 : { ...rule2, id: home.prefix + rule2.id };
  }
  /** The one formula by which everything in a place exists. */
  placeOf(home) {
    if (!home.when) return void 0;
    const known2 = this.places.get(home) ?? formulaOf(home.when, yesno3);
    this.places.set(home, known2);
    return known2;
  }
  entryOf(slot) {
    const { entry, home, under } = this.declaration.drafts[slot];
    if (entry.kind === "context" || entry.kind === "calculation" || entry.kind === "text") return entry;
    const place = under ? formulaOf(all(home.when, under), yesno3) : this.placeOf(home);
    const show = this.shown.get(entry.id);
    const shownWhen = show && place ? formulaOf(all(place.expr, show.when.expr), yesno3) : show?.when ?? place;
    return {
      ...entry,
      ...shownWhen ? { shownWhen } : {},
      ...place ? { placeWhen: place } : {},
      ...show ? { shownBy: show.rule } : {}
    };
  }
  rule(home, given) {
    const rule2 = this.placed(home, given);
    const path = `rules.${rule2.id}`;
    const severity2 = "severity" in rule2 && rule2.severity ? rule2.severity : "error";
    const own = "when" in rule2 && rule2.kind !== "show" && rule2.kind !== "usual" ? this.condition(home, `${path}.when`, rule2.when) : void 0;
    const guarded = all(home.when, own?.expr);
    const when = home.when && guarded ? formulaOf(guarded, yesno3, own?.source) : own;
    const base = { rule: rule2, severity: severity2, ...when ? { when } : {} };
    switch (rule2.kind) {
      case "require": {
        const must = this.condition(home, `${path}.must`, rule2.must);
        return must ? [{ ...base, must: [must] }] : [];
      }
      case "exclude": {
        const every = rule2.all.map((each, index) => this.condition(home, `${path}.all.${String(index)}`, each));
        return [{ ...base, must: [], all: every.filter((each) => each !== void 0) }];
      }
      case "limit": {
        const type = this.typeAt(home, rule2.of);
        if (type?.is !== "number" && type?.is !== "date") {
          this.report(path, "model.unknownTarget", { id: rule2.of });
          return [];
        }
        const bound2 = (name2) => rule2[name2] === void 0 ? void 0 : this.formula(home, `${path}.${name2}`, rule2[name2], type);
        const [least2, most] = [bound2("least"), bound2("most")];
        const of = this.nameOf(home, rule2.of);
        const target = this.entry(home, rule2.of);
        const unlessNothing = (test) => target?.kind === "calculation" || !this.mayBeNothing(home, rule2.of) ? test : either(compared(of, "=", literal(null)), test);
        const must = [...least2 ? [formulaOf(unlessNothing(compared(of, ">=", least2.expr)), yesno3)] : [], ...most ? [formulaOf(unlessNothing(compared(of, "<=", most.expr)), yesno3)] : []];
        return [{ ...base, must, ...least2 ? { least: least2 } : {}, ...most ? { most } : {} }];
      }
      case "table": {
        const rows = rule2.rows.map((row, index) => {
          if (row.length !== rule2.of.length) this.report(`${path}.rows.${String(index)}`, "model.rowWidth", { cells: row.length, wanted: rule2.of.length });
          return row.flatMap((cell, column) => {
            const compiled = compileCell(rule2.of[column] ?? "", cell, home.scope);
            if (compiled.ok) return [compiled.formula];
            this.formulaProblems(`${path}.rows.${String(index)}.${String(column)}`, compiled.problems);
            return [];
          });
        });
        const of = home.prefix === "" ? rule2.of : rule2.of.map((each) => home.scope.get(each)?.id ?? each);
        return [{ ...base, rule: { ...rule2, of }, must: [], rows }];
      }
      case "set": {
        const value = this.target(home, path, rule2.of, rule2.value, rule2.firm);
        if (value === void 0 || !rule2.firm) return [];
        return [{ ...base, must: [formulaOf(this.equation(home, rule2.of, value), yesno3)] }];
      }
      case "say":
        return [{ ...base, severity: rule2.severity, must: [] }];
      case "usual":
      case "show":
        return [];
    }
  }
  /** Whether a number or date may have no value, because it may not be there or is optional. */
  mayBeNothing(home, id2) {
    const draft = this.declaration.drafts[this.slotOf(home, id2) ?? -1];
    if (!draft) return false;
    const { entry, under } = draft;
    return under !== void 0 || draft.home.when !== void 0 || this.shown.has(entry.id) || "grid" in entry && entry.grid.optional;
  }
  /** The value "feature", "feature.option" or "parameter" is proposed; undefined where it cannot have it. */
  target(home, path, on, value, firm) {
    const [id2 = "", option] = on.split(".");
    const entry = this.entry(home, id2);
    if (!entry || entry.kind === "context" || entry.kind === "calculation") {
      this.report(path, "model.unknownTarget", { id: on });
      return void 0;
    }
    if (value !== null && typeof value === "object") {
      const type = this.typeAt(home, id2);
      const one = type.is !== "list" && option === void 0 && entry.kind !== "text";
      if (!one) this.report(path, "model.badTargetValue", { value: value.formula });
      return one ? this.formula(home, `${path}.value`, value.formula, type) : void 0;
    }
    const fine = isValue(entry, option, value) && !(firm && entry.kind === "text");
    if (!fine) this.report(path, "model.badTargetValue", { value: String(value) });
    return fine ? value : void 0;
  }
  equation(home, on, value) {
    const [id2 = "", option] = on.split(".");
    const of = this.nameOf(home, id2);
    if (option !== void 0) return value === true ? holds(of, option) : negated(holds(of, option));
    if (value !== null && typeof value === "object") return compared(of, "=", value.expr);
    const kind = this.entry(home, id2)?.kind;
    return compared(of, "=", literalOf(kind === "number" || kind === "date" ? kind : "other", value));
  }
  /** Advice before defaults; rules before what stands at the feature itself; else the order of the document, the outer place first. */
  proposals(homes) {
    const advised = [];
    const usual = [];
    for (const home of homes) {
      const full = (on) => {
        const [id2 = "", option] = on.split(".");
        const own = home.scope.get(id2)?.id ?? home.prefix + id2;
        return option === void 0 ? own : `${own}.${option}`;
      };
      for (const rule2 of home.document.rules) {
        if (rule2.kind !== "usual" && !(rule2.kind === "set" && !rule2.firm)) continue;
        const path = `rules.${home.prefix}${rule2.id}`;
        const value = this.target(home, path, rule2.of, rule2.value, false);
        const own = this.condition(home, `${path}.when`, rule2.when);
        const expr = all(home.when, own?.expr);
        if (value === void 0) continue;
        (rule2.kind === "set" ? advised : usual).push({
          rule: this.placed(home, rule2),
          source: rule2.kind === "set" ? "advised" : "usual",
          on: full(rule2.of),
          value,
          ...expr ? { when: formulaOf(expr, yesno3) } : {}
        });
      }
    }
    for (const home of homes) usual.push(...this.defaults(home));
    return [...advised, ...usual];
  }
  /** What stands at features, parameters and quantities themselves. */
  defaults(home) {
    const { document, prefix } = home;
    const found = [];
    const add = (id2, value) => void found.push({ source: "usual", on: prefix + id2, value });
    const own = (id2) => (home.scope.get(id2)?.id ?? prefix + id2) === prefix + id2;
    for (const { id: id2, usual: options2 = [], most, options: every } of document.features) {
      if (!own(id2)) continue;
      if (most > 1) for (const option of every) add(`${id2}.${option.id}`, options2.includes(option.id));
      else for (const option of options2) add(id2, option);
      for (const { id: option, quantity: quantity2 } of every) {
        if (typeof quantity2 !== "object" || quantity2.fixed) continue;
        const formula = this.formula(home, `features.${prefix}${id2}.${option}.quantity.usual`, quantity2.usual, anyNumber);
        if (formula) add(`${id2}/${option}/quantity`, formula.expr.kind === "literal" ? String(formula.expr.value) : formula);
      }
    }
    for (const parameter2 of document.parameters) {
      const { id: id2, type, usual } = parameter2;
      if (!own(id2)) continue;
      if (type === "yesno" && typeof parameter2.quantity === "object" && !parameter2.quantity.fixed) {
        const formula = this.formula(home, `parameters.${prefix}${id2}.quantity.usual`, parameter2.quantity.usual, anyNumber);
        if (formula) add(`${id2}/quantity`, formula);
      }
      if (usual !== void 0) {
        const value = this.target(home, `parameters.${prefix}${id2}`, id2, usual, false);
        if (value !== void 0) add(id2, value);
      }
      if (type !== "yesno" && parameter2.optional) add(id2, null);
    }
    return found;
  }
  typedContent(rules, proposals) {
    const { drafts } = this.declaration;
    if (!drafts.some((draft) => draft.entry.kind === "text")) return;
    const reads = readsTyped(drafts.map((draft) => draft.entry));
    const told = /* @__PURE__ */ new Set();
    for (const [path, formula] of this.conditions(rules, proposals)) {
      if (told.has(path) || !reads(formula)) continue;
      told.add(path);
      this.report(path, "formula.textContent");
    }
  }
  /** What decides over builds, with its path. */
  *conditions(rules, proposals) {
    for (const { rule: rule2, when, must, all: every, rows } of rules) {
      for (const formula of [...when ? [when] : [], ...must, ...every ?? [], ...rows?.flat() ?? []]) yield [`rules.${rule2.id}`, formula];
    }
    for (const { rule: rule2, when } of this.shown.values()) yield [`rules.${rule2.id}`, when];
    for (const { rule: rule2, on, when, value } of proposals) {
      if (when) yield [`rules.${rule2?.id ?? on}`, when];
      if (value !== null && typeof value === "object") yield [rule2 ? `rules.${rule2.id}` : on, value];
    }
    for (const [path, formula] of this.formulas) if (path.startsWith("numbering.")) yield [path, formula];
    for (const { entry } of this.declaration.drafts) if (entry.kind === "calculation" && entry.quantityOf) yield [entry.id, entry.formula];
  }
  picks() {
    const { picks } = this.declaration;
    return picks.filter(({ home }) => home.prefix === "").map(({ home, ...pick2 }) => ({ ...pick2, builds: home.inside.filter((each) => each.on === pick2.on).map(({ home: inner, index }) => this.build(inner, index)) }));
  }
  build({ prefix, document, scope, when }, index) {
    const ids = [...document.features, ...document.parameters, ...document.context].map((each) => each.id);
    const names = new Map(ids.flatMap((id2) => {
      const binding = scope.get(id2);
      return binding?.id === void 0 ? [] : [[id2, binding.id]];
    }));
    return { place: prefix.slice(0, -1), index, model: this.modelOf(document.id), names, when: formulaOf(when, yesno3) };
  }
  parts(home) {
    const { document } = this;
    const keep = (path, source, wanted2) => {
      if (source === void 0) return;
      const formula = this.formula(home, path, source, wanted2);
      if (formula) this.formulas.set(path, formula);
    };
    for (const part of document.prices) {
      keep(`prices.${part.id}.quantity`, part.quantity, anyNumber);
      keep(`prices.${part.id}.when`, part.when, yesno3);
    }
    for (const part of document.surcharges) {
      keep(`surcharges.${part.id}.rate`, part.rate, anyNumber);
      keep(`surcharges.${part.id}.when`, part.when, yesno3);
      for (const of of part.of) if (!document.prices.some((price) => price.id === of)) this.report(`surcharges.${part.id}`, "model.unknownPart", { id: of });
    }
    for (const row of document.materials) {
      keep(`materials.${row.id}.quantity`, row.quantity, anyNumber);
      keep(`materials.${row.id}.when`, row.when, yesno3);
      keep(`materials.${row.id}.cut`, row.cut, anyNumber);
    }
    for (const row of document.operations) {
      keep(`operations.${row.id}.setUp`, row.setUp, anyNumber);
      keep(`operations.${row.id}.run`, row.run, anyNumber);
      keep(`operations.${row.id}.when`, row.when, yesno3);
    }
    keep("extraDays", document.extraDays, anyNumber);
    document.numbering.forEach((segment2, index) => {
      keep(`numbering.${index}.when`, segment2.when, yesno3);
      const named2 = segment2.kind === "text" || segment2.kind === "check" ? [] : segment2.kind === "sequence" ? segment2.of : [segment2.of];
      for (const id2 of named2) if (!this.entry(home, id2)) this.report(`numbering.${index}`, "model.unknownTarget", { id: id2 });
    });
    for (const id2 of [document.figures.mass, document.figures.installation, ...document.figures.more]) {
      if (id2 !== void 0 && this.entry(home, id2)?.kind !== "calculation") this.report("figures", "model.unknownTarget", { id: id2 });
    }
  }
  /** Every text is there in every language of the document. */
  texts(value, path) {
    if (Array.isArray(value)) {
      value.forEach((each, index) => this.texts(each, join2(path, each?.id ?? String(index))));
    } else if (value !== null && typeof value === "object") {
      for (const [key, each] of Object.entries(value)) {
        if (textFields.has(key) && typeof each === "object" && each !== null) {
          for (const language of this.document.languages) {
            if (!each[language]) this.report(join2(path, key), "model.missingText", { language });
          }
        } else this.texts(each, join2(path, key));
      }
    }
  }
};
var textFields = /* @__PURE__ */ new Set(["name", "short", "help", "reason", "text"]);
var join2 = (path, part) => path ? `${path}.${part}` : part;
var everyHome = (home) => [home, ...home.inside.flatMap((each) => everyHome(each.home))];
function sectionsOf2({ document, prefix, inside, scope }) {
  const quantities = quantitiesOf(document);
  const own = document.sections.map((section2) => ({
    ...section2,
    rows: section2.rows.flatMap((row) => [scope.get(row)?.id ?? prefix + row, ...(quantities.get(row) ?? []).map((id2) => prefix + id2)]).filter((id2) => id2.startsWith(prefix)),
    ...prefix === "" ? {} : { place: prefix.slice(0, -1) }
  }));
  return own.flatMap((section2) => [section2, ...inside.filter(({ on }) => section2.rows.includes(on.split(".")[0])).flatMap((each) => sectionsOf2(each.home))]);
}
function quantitiesOf({ features, parameters }) {
  const found = /* @__PURE__ */ new Map();
  const add = (row, id2, quantity2) => {
    if (typeof quantity2 === "object" && !quantity2.fixed) found.set(row, [...found.get(row) ?? [], id2]);
  };
  for (const { id: id2, options: options2 } of features) for (const option of options2) if (option.quantity !== void 0) add(id2, `${id2}/${option.id}/quantity`, option.quantity);
  for (const parameter2 of parameters) if (parameter2.type === "yesno" && parameter2.quantity !== void 0) add(parameter2.id, `${parameter2.id}/quantity`, parameter2.quantity);
  return found;
}
function isValue(entry, option, value) {
  switch (entry.kind) {
    case "feature":
      if (entry.many) return option !== void 0 && entry.feature.options.some((each) => each.id === option) && typeof value === "boolean";
      return option === void 0 && (value === null || entry.feature.options.some((each) => each.id === value));
    case "number":
    case "date":
      return option === void 0 && typeof value !== "boolean" && codeOf(entry.grid, value) !== null;
    case "yesno":
      return option === void 0 && typeof value === "boolean";
    case "text":
      return option === void 0 && (value === null ? entry.parameter.optional === true : typeof value === "string" && value !== "" && [...value].length <= entry.parameter.most);
    case "length":
      return false;
  }
}

// src/core/model/reading.ts
var open = /* @__PURE__ */ Symbol("open");
var unsettled = /* @__PURE__ */ Symbol("unsettled");
var Reading = class {
  constructor(model, values) {
    this.model = model;
    this.values = values;
  }
  model;
  values;
  known = /* @__PURE__ */ new Map();
  /** The exact value of a formula, or `open` where it read something unsettled. */
  run(formula) {
    try {
      return formula.run((slot) => {
        const value = this.slot(slot);
        if (value === open) throw unsettled;
        return value;
      });
    } catch (thrown) {
      if (thrown === unsettled) return open;
      throw thrown;
    }
  }
  /** The formula at a path of the document, such as "materials.modules.quantity"; undefined where the document has none. */
  at(path) {
    const formula = this.model.formulas.get(path);
    return formula && this.run(formula);
  }
  /** A number at a path: open while unsettled; null where the formula gives none. */
  numberAt(path) {
    const value = this.at(path);
    return value === void 0 || value === open || value instanceof Exact ? value : null;
  }
  /** Whether a condition at a path holds; a missing condition holds. */
  holdsAt(path) {
    const value = this.at(path);
    return value === void 0 ? true : value === open ? open : value === true;
  }
  /** The value of a row, calculation or context input; null where the model has none of this name. */
  named(id2) {
    const slot = this.model.slots.get(id2);
    return slot === void 0 ? null : this.slot(slot);
  }
  slot(slot) {
    const known2 = this.known.get(slot);
    if (known2 !== void 0) return known2;
    const value = this.read(slot);
    this.known.set(slot, value);
    return value;
  }
  read(slot) {
    const entry = this.model.entries[slot];
    if (!entry) return null;
    if (entry.kind === "calculation") return this.run(entry.formula);
    const value = this.values[entry.kind === "length" ? entry.text : entry.id];
    if (value === void 0) return open;
    if (typeof value === "string") {
      if (entry.kind === "number") return exact(value);
      if (entry.kind === "length") return exact([...value].length);
      if (entry.kind === "date" || entry.kind === "context" && entry.type.is === "date") return Day.read(value);
    }
    return Array.isArray(value) ? [...value] : value;
  }
};

// src/core/solver/literal.ts
var not = (lit) => lit ^ 1;
var variableOf = (lit) => lit >> 1;
var always = 0;
var never = 1;

// src/core/solver/witness.ts
var Witness = class _Witness {
  constructor(bits, codes, numbers3) {
    this.bits = bits;
    this.codes = codes;
    this.numbers = numbers3;
  }
  bits;
  codes;
  numbers;
  /** A base with some literals and codes changed; without a base, everything is among the changes. */
  static from(base, changed, codes, count, numbers3) {
    const bits = new Uint8Array(count);
    const all2 = new Int32Array(numbers3.size);
    if (base) {
      bits.set(base.bits);
      all2.set(base.codes);
      for (let variable = base.bits.length; variable < count; variable++) bits[variable] = base.holds(2 * variable) ? 1 : 0;
    }
    for (const lit of changed) bits[variableOf(lit)] = lit & 1 ? 0 : 1;
    for (const [number4, code] of codes) all2[number4] = code;
    return new _Witness(bits, all2, numbers3);
  }
  holds(lit) {
    const variable = variableOf(lit);
    const bit = variable < this.bits.length ? this.bits[variable] : this.numbers.cutHolds(variable, this.codes) ? 1 : 0;
    return (bit ^ lit & 1) === 1;
  }
  /** The same but for one variable that no witness depends on. */
  without(lit) {
    const bits = Uint8Array.from(this.bits);
    bits[variableOf(lit)] = lit & 1;
    return new _Witness(bits, this.codes, this.numbers);
  }
  meets(lits) {
    for (const lit of lits) if (!this.holds(lit)) return false;
    return true;
  }
};

// src/core/solver/trail.ts
var none = 0;
var Trail = class {
  /** By literal: 1 where it holds, -1 where its opposite does, 0 while open. */
  value = new Int8Array(1024);
  /** By variable: level, reason and place in the order at which it was settled. */
  level = new Int32Array(512);
  reason = new Int32Array(512);
  place = new Int32Array(512);
  order = new Int32Array(512);
  size = 0;
  /** Changes with everything that is settled or opened again. */
  version = 0;
  /** How many of the order have been propagated. */
  head = 0;
  marks = [];
  get depth() {
    return this.marks.length;
  }
  fit(variables) {
    if (variables <= this.level.length) return;
    const length = 2 * this.level.length;
    this.value = larger(this.value, new Int8Array(2 * length));
    this.level = larger(this.level, new Int32Array(length));
    this.reason = larger(this.reason, new Int32Array(length));
    this.place = larger(this.place, new Int32Array(length));
    this.order = larger(this.order, new Int32Array(length));
  }
  settle(lit, reason) {
    const variable = variableOf(lit);
    this.value[lit] = 1;
    this.value[lit ^ 1] = -1;
    this.level[variable] = this.marks.length;
    this.reason[variable] = reason;
    this.place[variable] = this.size;
    this.order[this.size++] = lit;
    this.version++;
  }
  /** Begins a level. */
  mark() {
    this.marks.push(this.size);
  }
  /** Goes back so that only so many levels stand; each variable that opens again is told. */
  back(depth, opened) {
    if (this.marks.length <= depth) return;
    this.version++;
    const from = this.marks[depth];
    for (let at = this.size - 1; at >= from; at--) {
      const lit = this.order[at];
      this.value[lit] = 0;
      this.value[lit ^ 1] = 0;
      opened(variableOf(lit));
    }
    this.size = from;
    this.head = Math.min(this.head, from);
    this.marks.length = depth;
  }
};
function larger(old, made2) {
  made2.set(old);
  return made2;
}

// src/core/solver/cardinalities.ts
var Cardinalities = class {
  list = [];
  /** By literal: cardinalities that count it, and those that it guards. */
  counting = [];
  guarded = [];
  addVariable() {
    this.counting.push([], []);
    this.guarded.push([], []);
  }
  add(lits, most, guard) {
    const index = this.list.length;
    this.list.push({ lits: Int32Array.from(lits), most, guard });
    for (const lit of lits) this.counting[lit].push(index);
    if (guard !== always) this.guarded[guard].push(index);
  }
  /** What follows from a literal's having come to hold; gives a broken cardinality, or none. */
  propagate(lit, trail) {
    for (const list2 of [this.counting[lit], this.guarded[lit]]) {
      for (let each = 0; each < list2.length; each++) {
        const conflict = this.follow(list2[each], trail);
        if (conflict !== none) return conflict;
      }
    }
    return none;
  }
  follow(index, trail) {
    const { value } = trail;
    const { lits, most, guard } = this.list[index];
    if (value[guard] < 0) return none;
    let sum = 0;
    for (let at = 0; at < lits.length; at++) if (value[lits[at]] > 0) sum++;
    if (sum > most) {
      if (value[guard] > 0) return -1 - index;
      trail.settle(not(guard), -1 - index);
    } else if (sum === most && value[guard] > 0) {
      for (let at = 0; at < lits.length; at++) if (value[lits[at]] === 0) trail.settle(not(lits[at]), -1 - index);
    }
    return none;
  }
  /** The false literals by which a cardinality forced a literal, or is broken where `forced` is -1. */
  because(reason, forced, trail, found) {
    const { lits, most, guard } = this.list[-1 - reason];
    const before = forced < 0 ? Infinity : trail.place[variableOf(forced)];
    const ofGuard = forced >= 0 && forced === not(guard);
    let wanted2 = forced < 0 || ofGuard ? most + 1 : most;
    if (!ofGuard && guard !== always) found.push(not(guard));
    for (let at = 0; at < lits.length && wanted2 > 0; at++) {
      const lit = lits[at];
      if (trail.value[lit] > 0 && trail.place[variableOf(lit)] < before) {
        found.push(not(lit));
        wanted2--;
      }
    }
  }
};

// src/core/solver/clauses.ts
var precious = 2;
var Clauses = class {
  memory = new Int32Array(1 << 14);
  used = 1;
  /** By literal: places of clauses that watch it, each followed by a literal of the clause that may hold already. */
  watches = [];
  /** By literal: given clauses that have it. */
  given = [];
  learned = [];
  most = 6e3;
  addVariable() {
    this.watches.push([], []);
    this.given.push([], []);
  }
  /** Adds a clause; its first two literals are watched. Gives its place. */
  add(lits, glue) {
    const place = this.used;
    const size4 = lits.length + 2;
    if (place + size4 > this.memory.length) {
      const wider = new Int32Array(Math.max(2 * this.memory.length, place + size4));
      wider.set(this.memory);
      this.memory = wider;
    }
    this.memory[place] = lits.length;
    this.memory[place + 1] = glue;
    for (let at = 0; at < lits.length; at++) this.memory[place + 2 + at] = lits[at];
    this.used = place + size4;
    if (lits.length > 1) {
      this.watches[lits[0]].push(place, lits[1]);
      this.watches[lits[1]].push(place, lits[0]);
    }
    if (glue === 0) for (const lit of lits) this.given[lit].push(place);
    else this.learned.push(place);
    return place;
  }
  /** Every given clause. */
  allGiven() {
    const found = [];
    for (let place = 1; place < this.used; place += this.memory[place] + 2) {
      if (this.memory[place + 1] === 0) found.push([...this.memory.subarray(place + 2, place + 2 + this.memory[place])]);
    }
    return found;
  }
  get crowded() {
    return this.learned.length > this.most;
  }
  /** Drops the learned clauses least likely to serve again and closes the gaps. Only at the root, where no reason is needed. */
  forget(trail) {
    const glue = (place) => this.memory[place + 1];
    const sorted = [...this.learned].sort((a, b) => glue(a) - glue(b) || this.memory[a] - this.memory[b]);
    const dropped = new Set(sorted.slice(sorted.length >> 1).filter((place) => glue(place) > precious));
    this.most = Math.max(this.most, 2 * (this.learned.length - dropped.size));
    const old = this.memory;
    const end = this.used;
    this.memory = new Int32Array(old.length);
    this.used = 1;
    this.learned = [];
    for (const list2 of this.watches) list2.length = 0;
    for (const list2 of this.given) list2.length = 0;
    for (let place = 1; place < end; place += old[place] + 2) {
      if (dropped.has(place)) continue;
      const lits = [...old.subarray(place + 2, place + 2 + old[place])];
      this.add(lits.sort((a, b) => Number(trail.value[a] < 0) - Number(trail.value[b] < 0)), old[place + 1]);
    }
  }
  /** What follows from a literal's having come to hold; gives the place of a broken clause, or none. */
  propagate(lit, trail) {
    const { memory: memory2 } = this;
    const { value } = trail;
    const falsified = lit ^ 1;
    const list2 = this.watches[falsified];
    const { length } = list2;
    let kept = 0;
    let at = 0;
    while (at < length) {
      const place = list2[at];
      const blocker = list2[at + 1];
      at += 2;
      if (value[blocker] > 0) {
        list2[kept++] = place;
        list2[kept++] = blocker;
        continue;
      }
      let first2 = memory2[place + 2];
      if (first2 === falsified) {
        first2 = memory2[place + 3];
        memory2[place + 2] = first2;
        memory2[place + 3] = falsified;
      }
      if (value[first2] > 0) {
        list2[kept++] = place;
        list2[kept++] = first2;
        continue;
      }
      const end = place + 2 + memory2[place];
      let moved = false;
      for (let other = place + 4; other < end; other++) {
        const candidate = memory2[other];
        if (value[candidate] >= 0) {
          memory2[place + 3] = candidate;
          memory2[other] = falsified;
          this.watches[candidate].push(place, first2);
          moved = true;
          break;
        }
      }
      if (moved) continue;
      list2[kept++] = place;
      list2[kept++] = first2;
      if (value[first2] < 0) {
        while (at < length) list2[kept++] = list2[at++];
        list2.length = kept;
        return place;
      }
      trail.settle(first2, place);
    }
    list2.length = kept;
    return none;
  }
};

// src/core/solver/heap.ts
var Heap = class {
  constructor(rank) {
    this.rank = rank;
  }
  rank;
  order = [];
  /** Place of a variable in `order`, -1 where it is not in the heap. */
  place = [];
  /** The ranks have moved to a larger array. */
  ranked(rank) {
    this.rank = rank;
  }
  has(variable) {
    return (this.place[variable] ?? -1) >= 0;
  }
  add(variable) {
    while (this.place.length <= variable) this.place.push(-1);
    if (this.place[variable] >= 0) return;
    this.place[variable] = this.order.length;
    this.order.push(variable);
    this.up(this.order.length - 1);
  }
  /** The rank of a variable has grown. */
  raised(variable) {
    if (this.has(variable)) this.up(this.place[variable]);
  }
  /** Takes the most active variable; -1 where there is none. */
  take() {
    const top = this.order[0];
    if (top === void 0) return -1;
    const last = this.order.pop();
    this.place[top] = -1;
    if (last !== top) {
      this.order[0] = last;
      this.place[last] = 0;
      this.down(0);
    }
    return top;
  }
  up(from) {
    const { order: order2, place, rank } = this;
    const variable = order2[from];
    const own = rank[variable];
    let at = from;
    while (at > 0) {
      const parent = at - 1 >> 1;
      const above = order2[parent];
      if (rank[above] >= own) break;
      order2[at] = above;
      place[above] = at;
      at = parent;
    }
    order2[at] = variable;
    place[variable] = at;
  }
  down(from) {
    const { order: order2, place, rank } = this;
    const variable = order2[from];
    const own = rank[variable];
    let at = from;
    for (; ; ) {
      let child = 2 * at + 1;
      if (child >= order2.length) break;
      if (child + 1 < order2.length && rank[order2[child + 1]] > rank[order2[child]]) child++;
      const below = order2[child];
      if (rank[below] <= own) break;
      order2[at] = below;
      place[below] = at;
      at = child;
    }
    order2[at] = variable;
    place[variable] = at;
  }
};

// src/core/solver/learning.ts
var Learning = class {
  constructor(trail, clauses, cardinalities) {
    this.trail = trail;
    this.clauses = clauses;
    this.cardinalities = cardinalities;
  }
  trail;
  clauses;
  cardinalities;
  buffer = [];
  seen = new Uint8Array(512);
  /** The other literals of a reason or conflict, all false; `forced` is the literal it forced, or -1. The list is used again. */
  because(reason, forced) {
    const { buffer } = this;
    const { memory: memory2 } = this.clauses;
    buffer.length = 0;
    if (reason < 0) this.cardinalities.because(reason, forced, this.trail, buffer);
    else {
      const end = reason + 2 + memory2[reason];
      for (let at = reason + 2; at < end; at++) if (memory2[at] !== forced) buffer.push(memory2[at]);
    }
    return buffer;
  }
  /** The deepest level that takes part in a conflict; 0 where the conflict stands at the root. */
  depthOf(conflict) {
    let deepest3 = 0;
    for (const lit of this.because(conflict, -1)) deepest3 = Math.max(deepest3, this.trail.level[variableOf(lit)]);
    return deepest3;
  }
  /** What a conflict at the present depth teaches. `bump` is told each variable that took part. */
  lesson(conflict, bump) {
    const { level, order: order2, reason, size: size4, depth: deepest3 } = this.trail;
    const seen = this.marker();
    const clause = [-1];
    const marked = [];
    let from = conflict;
    let open2 = 0;
    let at = size4 - 1;
    let lit = -1;
    do {
      for (const other of this.because(from, lit)) {
        const variable = variableOf(other);
        if (seen[variable] !== 0 || level[variable] === 0) continue;
        seen[variable] = 1;
        marked.push(variable);
        bump(variable);
        if (level[variable] === deepest3) open2++;
        else clause.push(other);
      }
      while (seen[variableOf(order2[at])] === 0) at--;
      lit = order2[at--];
      seen[variableOf(lit)] = 0;
      from = reason[variableOf(lit)];
      open2--;
    } while (open2 > 0);
    clause[0] = not(lit);
    const needed = clause.filter((other, index) => {
      const why = reason[variableOf(other)];
      if (index === 0 || why === none) return true;
      return this.because(why, not(other)).some((each) => seen[variableOf(each)] === 0 && level[variableOf(each)] > 0);
    });
    for (const variable of marked) seen[variable] = 0;
    let depth = 0;
    for (let index = 1; index < needed.length; index++) {
      const own = level[variableOf(needed[index])];
      if (own <= depth) continue;
      depth = own;
      [needed[1], needed[index]] = [needed[index], needed[1]];
    }
    return { clause: needed, depth, glue: new Set(needed.map((each) => level[variableOf(each)])).size };
  }
  /** The assumptions that force a refused assumption's opposite, itself included. */
  coreOf(refused) {
    const { level, order: order2, reason, place, marks } = this.trail;
    const core = [refused];
    if (level[variableOf(refused)] === 0) return core;
    const seen = this.marker();
    const marked = [variableOf(refused)];
    seen[variableOf(refused)] = 1;
    for (let at = place[variableOf(refused)]; at >= (marks[0] ?? 0); at--) {
      const lit = order2[at];
      const variable = variableOf(lit);
      if (seen[variable] === 0) continue;
      const why = reason[variable];
      if (why === none) {
        core.push(lit);
        continue;
      }
      for (const other of this.because(why, lit)) {
        const next2 = variableOf(other);
        if (seen[next2] !== 0 || level[next2] === 0) continue;
        seen[next2] = 1;
        marked.push(next2);
      }
    }
    for (const variable of marked) seen[variable] = 0;
    return core;
  }
  /** A mark for each variable, all off. */
  marker() {
    if (this.seen.length < this.trail.level.length) this.seen = new Uint8Array(this.trail.level.length);
    return this.seen;
  }
};

// src/core/solver/numbers.ts
var Numbers = class {
  constructor(host) {
    this.host = host;
  }
  host;
  list = [];
  /** Of a bound literal's variable: its number, and its cut. */
  owner = [];
  cutOf = [];
  get size() {
    return this.list.length;
  }
  add(count) {
    this.list.push({ count, cuts: [], lits: [] });
    return this.list.length - 1;
  }
  count(number4) {
    return this.list[number4].count;
  }
  /** Where a number is cut: between two cuts no clause tells its values apart. */
  cuts(number4) {
    return this.list[number4].cuts;
  }
  /** The literal of each cut. */
  literals(number4) {
    return this.list[number4].lits;
  }
  /** The number a variable is a bound of, or -1. */
  ofVariable(variable) {
    return this.owner[variable] ?? -1;
  }
  cutHolds(variable, codes) {
    return codes[this.owner[variable]] <= this.cutOf[variable];
  }
  /** Whether "at most k" has its literal already. */
  known(number4, k) {
    const { count, cuts } = this.list[number4];
    return k < 0 || k >= count - 1 || cuts[firstFrom(cuts, k)] === k;
  }
  /**
   * The literal "at most k". A new one is made where k lies strictly inside the bounds that hold now;
   * the solver sees to that by going back to its root first.
   */
  atMost(number4, k) {
    const entry = this.list[number4];
    if (k < 0) return never;
    if (k >= entry.count - 1) return always;
    const { cuts, lits } = entry;
    const at = firstFrom(cuts, k);
    if (cuts[at] === k) return lits[at];
    const made2 = 2 * this.host.addVariable();
    while (this.owner.length <= variableOf(made2)) {
      this.owner.push(-1);
      this.cutOf.push(-1);
    }
    this.owner[variableOf(made2)] = number4;
    this.cutOf[variableOf(made2)] = k;
    cuts.splice(at, 0, k);
    lits.splice(at, 0, made2);
    if (at > 0) this.host.addOrder(not(lits[at - 1]), made2);
    if (at + 1 < lits.length) this.host.addOrder(not(made2), lits[at + 1]);
    return made2;
  }
  /** The literal of the greatest cut known to lie below all values left, and of the least known to lie above or at all. */
  bounds(number4) {
    const { cuts, lits, count } = this.list[number4];
    let from = 0;
    let to = cuts.length;
    while (from < to) {
      const middle = from + to >> 1;
      if (this.host.value(lits[middle]) < 0) from = middle + 1;
      else to = middle;
    }
    const firstNotFalse = from;
    to = cuts.length;
    while (from < to) {
      const middle = from + to >> 1;
      if (this.host.value(lits[middle]) > 0) to = middle;
      else from = middle + 1;
    }
    return {
      low: firstNotFalse === 0 ? 0 : cuts[firstNotFalse - 1] + 1,
      high: from === cuts.length ? count - 1 : cuts[from],
      lowLit: firstNotFalse === 0 ? always : not(lits[firstNotFalse - 1]),
      highLit: from === cuts.length ? always : lits[from]
    };
  }
};
function firstFrom(sorted, k) {
  let [from, to] = [0, sorted.length];
  while (from < to) {
    const middle = from + to >> 1;
    if (sorted[middle] < k) from = middle + 1;
    else to = middle;
  }
  return from;
}

// src/core/solver/repair.ts
var Repair = class {
  constructor(trail, clauses, cardinalities, theories) {
    this.trail = trail;
    this.clauses = clauses;
    this.cardinalities = cardinalities;
    this.theories = theories;
  }
  trail;
  clauses;
  cardinalities;
  theories;
  flipped = new Uint8Array(512);
  /** By theory: the version of the trail and the base at which it last had nothing to object. */
  content = [];
  /** An open literal to settle because a settled one breaks something that the base met; -1 where all it touches stands. */
  next(lit, base, overlay) {
    const { value } = this.trail;
    const { memory: memory2, given } = this.clauses;
    const touched = given[not(lit)];
    for (let each = 0; each < touched.length; each++) {
      const place = touched[each];
      const end = place + 2 + memory2[place];
      let open2 = -1;
      let stands = false;
      for (let at = place + 2; at < end; at++) {
        const other = memory2[at];
        const settled = value[other];
        if (settled > 0 || settled === 0 && base.holds(other)) {
          stands = true;
          break;
        }
        if (settled === 0 && open2 < 0) open2 = other;
      }
      if (!stands) return open2;
    }
    for (const list2 of [this.cardinalities.counting[lit], this.cardinalities.guarded[lit]]) {
      for (const index of list2) {
        const next2 = this.tooMany(index, base);
        if (next2 >= 0) return next2;
      }
    }
    if (this.theories.list.length === 0) return -1;
    for (const index of this.theories.reading(variableOf(lit))) {
      const content = this.content[index] ??= { version: -1, base: null };
      if (content.version === this.trail.version && content.base === base) continue;
      const next2 = this.theories.list[index].check(overlay());
      if (next2 >= 0) return next2;
      content.version = this.trail.version;
      content.base = base;
    }
    return -1;
  }
  tooMany(index, base) {
    const { value } = this.trail;
    const { lits, most, guard } = this.cardinalities.list[index];
    if (value[guard] < 0 || value[guard] === 0 && !base.holds(guard)) return -1;
    let sum = 0;
    let open2 = -1;
    for (const other of lits) {
      if (value[other] > 0) sum++;
      else if (value[other] === 0 && base.holds(other)) {
        sum++;
        open2 = other;
      }
    }
    return sum <= most ? -1 : open2 >= 0 ? not(open2) : not(guard);
  }
  /**
   * Whether a witness with some literals changed still meets everything given; false also where it cannot tell.
   * `changed` must be consistent with the codes of the witness's numbers.
   */
  stands(base, changed) {
    const { value, level } = this.trail;
    for (const lit of changed) {
      if (value[lit] < 0 && level[variableOf(lit)] === 0) return false;
      if (this.theories.list.length > 0 && this.theories.reading(variableOf(lit)).length > 0) return false;
    }
    if (this.flipped.length < level.length) this.flipped = new Uint8Array(level.length);
    const { flipped } = this;
    for (const lit of changed) flipped[variableOf(lit)] = 1;
    const holds3 = (lit) => flipped[variableOf(lit)] === 1 !== base.holds(lit);
    const stands = changed.every((lit) => this.clausesStand(lit, holds3) && this.cardinalitiesStand(lit, holds3));
    for (const lit of changed) flipped[variableOf(lit)] = 0;
    return stands;
  }
  /**
   * How many groups of literals can be changed in a witness, one after the other and all kept, before a clause or cardinality breaks.
   * What theories have to say is not looked at. The changes must be consistent with codes of the witness's numbers.
   */
  stepsThatStand(base, groups) {
    const { value, level } = this.trail;
    if (this.flipped.length < level.length) this.flipped = new Uint8Array(level.length);
    const { flipped } = this;
    const holds3 = (lit) => flipped[variableOf(lit)] === 1 !== base.holds(lit);
    let steps = 0;
    for (const group of groups) {
      for (const lit of group) flipped[variableOf(lit)] = 1;
      const stands = group.every((lit) => !(value[lit] < 0 && level[variableOf(lit)] === 0) && this.clausesStand(lit, holds3) && this.cardinalitiesStand(lit, holds3));
      if (!stands) break;
      steps++;
    }
    for (const group of groups) for (const lit of group) flipped[variableOf(lit)] = 0;
    return steps;
  }
  clausesStand(lit, holds3) {
    const { memory: memory2, given } = this.clauses;
    const touched = given[not(lit)];
    for (let each = 0; each < touched.length; each++) {
      const place = touched[each];
      const end = place + 2 + memory2[place];
      let at = place + 2;
      while (at < end && !holds3(memory2[at])) at++;
      if (at === end) return false;
    }
    return true;
  }
  cardinalitiesStand(lit, holds3) {
    for (const list2 of [this.cardinalities.counting[lit], this.cardinalities.guarded[lit]]) {
      for (const index of list2) {
        const { lits, most, guard } = this.cardinalities.list[index];
        if (!holds3(guard)) continue;
        let sum = 0;
        for (const other of lits) if (holds3(other)) sum++;
        if (sum > most) return false;
      }
    }
    return true;
  }
  /** Tells every variable that shares something given with one of the literals. */
  neighbours(changed, tell) {
    const { memory: memory2, given } = this.clauses;
    const reading = /* @__PURE__ */ new Set();
    for (const lit of changed) {
      tell(variableOf(lit));
      for (const side of [lit, not(lit)]) {
        for (const place of given[side]) {
          const end = place + 2 + memory2[place];
          for (let at = place + 2; at < end; at++) tell(variableOf(memory2[at]));
        }
        for (const list2 of [this.cardinalities.counting[side], this.cardinalities.guarded[side]]) {
          for (const index of list2) {
            const { lits, guard, most } = this.cardinalities.list[index];
            tell(variableOf(guard));
            if (most !== 1) for (const other of lits) tell(variableOf(other));
          }
        }
      }
      if (this.theories.list.length > 0) for (const index of this.theories.reading(variableOf(lit))) reading.add(index);
    }
    for (const index of reading) this.theories.tellVariables(index, tell);
  }
};

// src/core/solver/theories.ts
var Theories = class {
  constructor(trail, clauses, numbers3) {
    this.trail = trail;
    this.clauses = clauses;
    this.numbers = numbers3;
    this.voice = { value: (lit) => trail.value[lit], bounds: (number4) => numbers3.bounds(number4), cut: (number4, k) => numbers3.atMost(number4, k), imply: (clause) => this.imply(clause) };
  }
  trail;
  clauses;
  numbers;
  list = [];
  ofVariable = [];
  ofNumber = [];
  /** Theories to ask before anything else is settled. */
  woken = [];
  isWoken = [];
  conflict = none;
  voice;
  addVariable() {
    this.ofVariable.push([]);
  }
  addNumber() {
    this.ofNumber.push([]);
  }
  add(theory) {
    const index = this.list.length;
    this.list.push(theory);
    this.isWoken.push(false);
    for (const variable of new Set(theory.lits.map(variableOf))) this.ofVariable[variable].push(index);
    for (const number4 of theory.numbers) this.ofNumber[number4].push(index);
    this.wake(index);
  }
  renew(theory) {
    this.wake(this.list.indexOf(theory));
  }
  /** Theories that read a variable, or a number that it bounds. */
  reading(variable) {
    const number4 = this.numbers.ofVariable(variable);
    const own = this.ofVariable[variable];
    return number4 < 0 ? own : own.length === 0 ? this.ofNumber[number4] : [...own, ...this.ofNumber[number4]];
  }
  /** Tells every variable that a theory reads, the bounds of its numbers among them. */
  tellVariables(index, tell) {
    const { lits, numbers: numbers3 } = this.list[index];
    for (const lit of lits) tell(variableOf(lit));
    for (const number4 of numbers3) for (const lit of this.numbers.literals(number4)) tell(variableOf(lit));
  }
  wakeBy(lit) {
    for (const index of this.reading(variableOf(lit))) this.wake(index);
  }
  wake(index) {
    if (this.isWoken[index]) return;
    this.isWoken[index] = true;
    this.woken.push(index);
  }
  get awake() {
    return this.woken.length > 0;
  }
  /** Asks one woken theory; gives the place of a broken clause it has given, or none. */
  askOne() {
    const index = this.woken.pop();
    this.isWoken[index] = false;
    this.conflict = none;
    this.list[index].propagate(this.voice);
    return this.conflict;
  }
  /** Keeps a clause that a theory has given: from now on it needs no theory. */
  imply(clause) {
    const { value, place } = this.trail;
    const lits = [...clause];
    const first2 = lits[0];
    if (value[first2] > 0) return true;
    let latest = 1;
    for (let at = 2; at < lits.length; at++) if (place[variableOf(lits[at])] > place[variableOf(lits[latest])]) latest = at;
    if (lits.length > 1) [lits[1], lits[latest]] = [lits[latest], lits[1]];
    if (value[first2] < 0) {
      if (lits.length > 1 && place[variableOf(lits[1])] > place[variableOf(first2)]) [lits[0], lits[1]] = [lits[1], lits[0]];
      this.conflict = this.clauses.add(lits, 2);
      return false;
    }
    this.trail.settle(first2, this.clauses.add(lits, 2));
    return true;
  }
};

// src/core/solver/solver.ts
var repairPatience = 400;
var restartUnit = 128;
var decay = 1 / 0.95;
var Solver = class {
  numbers;
  /** Conflicts met so far. */
  conflicts = 0;
  /** Asked at the start of a question and now and then during its search; true gives it up. */
  stop;
  /** Conflicts that all questions together may still take. */
  allowance = Infinity;
  count = 0;
  trail = new Trail();
  clauses = new Clauses();
  cardinalities = new Cardinalities();
  theories;
  learning = new Learning(this.trail, this.clauses, this.cardinalities);
  repair;
  phase = new Uint8Array(512);
  activity = new Float64Array(512);
  raise = 1;
  heap = new Heap(this.activity);
  /** The assumptions that the first levels stand for. */
  assumed = [];
  possible = true;
  constructor() {
    this.numbers = new Numbers({ addVariable: () => this.addVariable(), addOrder: (a, b) => this.addOrder(a, b), value: (lit) => this.trail.value[lit] });
    this.theories = new Theories(this.trail, this.clauses, this.numbers);
    this.repair = new Repair(this.trail, this.clauses, this.cardinalities, this.theories);
    this.addVariable();
    this.trail.settle(always, none);
  }
  // ---- building -------------------------------------------------------------------------------------------------------
  get variables() {
    return this.count;
  }
  addVariable() {
    const variable = this.count++;
    this.trail.fit(this.count);
    if (this.count > this.phase.length) {
      this.phase = larger(this.phase, new Uint8Array(2 * this.phase.length));
      this.activity = larger(this.activity, new Float64Array(this.phase.length));
      this.heap.ranked(this.activity);
    }
    this.clauses.addVariable();
    this.cardinalities.addVariable();
    this.theories.addVariable();
    this.heap.add(variable);
    return variable;
  }
  /** A new variable's literal. */
  add() {
    return 2 * this.addVariable();
  }
  /** A number with the values 0..count-1. */
  addNumber(count) {
    this.theories.addNumber();
    return this.numbers.add(count);
  }
  /** The literal "at most k" of a number. */
  atMost(number4, k) {
    if (!this.numbers.known(number4, k)) this.back(0);
    return this.numbers.atMost(number4, k);
  }
  addClause(lits) {
    this.back(0);
    const { value } = this.trail;
    const open2 = /* @__PURE__ */ new Set();
    for (const lit of lits) {
      if (value[lit] > 0 || open2.has(not(lit))) return;
      if (value[lit] === 0) open2.add(lit);
    }
    const left = [...open2];
    if (left.length === 0) this.possible = false;
    else if (left.length === 1) this.trail.settle(left[0], none);
    else this.clauses.add(left, 0);
  }
  /** At most so many of the literals hold, while the guard holds. */
  addAtMost(lits, most, guard = always) {
    this.back(0);
    this.cardinalities.add(lits, most, guard);
    this.trail.head = 0;
  }
  addTheory(theory) {
    this.back(0);
    this.theories.add(theory);
  }
  /** A theory has become stricter: it is asked again from the root. */
  renew(theory) {
    this.back(0);
    this.theories.renew(theory);
  }
  /** The order of two cuts of a number. Of a cut made during a search, inside its number's bounds, no side is false. */
  addOrder(a, b) {
    if (this.trail.depth > 0) this.clauses.add([a, b], 0);
    else this.addClause([a, b]);
  }
  /** Everything given: clauses (what is settled for good as clauses of one literal) and cardinalities. Theories are not among it. */
  constraints() {
    this.back(0);
    const settled = [...this.trail.order.subarray(0, this.trail.size)].map((lit) => [lit]);
    return {
      clauses: [...settled, ...this.possible ? [] : [[]], ...this.clauses.allGiven()],
      cardinalities: this.cardinalities.list.map(({ lits, most, guard }) => ({ lits: [...lits], most, guard }))
    };
  }
  // ---- asking ---------------------------------------------------------------------------------------------------------
  /** Whether everything given can hold together with the assumptions. */
  ask({ assume, base = null, met = 0, wishes = [], budget = Infinity }) {
    const { trail } = this;
    if (this.clauses.crowded) this.forget();
    this.keepCommon(assume);
    const known2 = base ? Math.min(met, assume.length) : 0;
    let at = { wish: 0, scan: -1 };
    const began = [];
    let byRepair = base !== null;
    let spent = 0;
    let untilRestart = restartUnit;
    let rounds = 0;
    if (this.allowance <= 0 || this.stop?.()) return { is: "stopped" };
    for (; ; ) {
      if ((++rounds & 63) === 0 && this.stop?.()) return { is: "stopped" };
      if (!this.possible) return { is: "no", core: [] };
      const conflict = this.propagate();
      if (conflict !== none) {
        spent++;
        this.allowance--;
        if (!this.learnFrom(conflict)) return { is: "no", core: [] };
        at = trail.depth >= assume.length && began[trail.depth] || { wish: 0, scan: -1 };
        if (spent >= budget || this.allowance <= 0) return { is: "stopped" };
        if (spent > repairPatience) byRepair = false;
        if (!byRepair && --untilRestart <= 0) {
          untilRestart = restartUnit * luby(Math.floor(spent / restartUnit) + 1);
          this.back(Math.min(trail.depth, assume.length));
          at = { wish: 0, scan: -1 };
        }
        continue;
      }
      const assumption = assume[trail.depth];
      if (assumption !== void 0) {
        if (trail.value[assumption] < 0) return { is: "no", core: this.learning.coreOf(assumption) };
        this.assume(assumption);
        continue;
      }
      const next2 = this.wished(wishes, at) ?? (base && byRepair ? this.mend(base, at, known2) : this.byActivity(base));
      if (next2 === null) return this.found(base, known2);
      began[trail.depth] = { ...at };
      trail.mark();
      trail.settle(next2, none);
    }
  }
  /** Lets one read what follows from assumptions by propagation alone; null where they are refused. */
  consider(assume, read) {
    this.keepCommon(assume);
    while (this.possible) {
      const conflict = this.propagate();
      const next2 = assume[this.trail.depth];
      if (conflict !== none) this.learnFrom(conflict);
      else if (next2 === void 0) return read(this.theories.voice);
      else if (this.trail.value[next2] < 0) return null;
      else this.assume(next2);
    }
    return null;
  }
  /** Whether a witness with some literals changed still meets everything given; false also where it cannot tell. */
  stands(base, changed) {
    return this.repair.stands(base, changed);
  }
  /** How many groups of literals can be changed in a witness one after the other; see `Repair`. */
  stepsThatStand(base, groups) {
    return this.repair.stepsThatStand(base, groups);
  }
  /** Tells every variable that shares something given with one of the literals. */
  neighbours(changed, tell) {
    this.repair.neighbours(changed, tell);
  }
  assume(lit) {
    this.assumed.push(lit);
    this.trail.mark();
    if (this.trail.value[lit] === 0) this.trail.settle(lit, none);
  }
  // ---- choosing -------------------------------------------------------------------------------------------------------
  wished(wishes, at) {
    while (at.wish < wishes.length) {
      const lit = wishes[at.wish++];
      if (this.trail.value[lit] === 0) return lit;
    }
    return null;
  }
  /** A literal that mends what the settled ones break of the base; null where nothing is broken. */
  mend(base, at, known2) {
    const { trail } = this;
    if (at.scan < 0) at.scan = trail.marks[known2] ?? trail.size;
    for (; at.scan < trail.size; at.scan++) {
      const lit = trail.order[at.scan];
      if (base.holds(lit)) continue;
      const next2 = this.repair.next(lit, base, () => this.overlay(base));
      if (next2 >= 0) return next2;
    }
    return null;
  }
  /** The most active open literal, or what a theory still objects to; null where all is settled. */
  byActivity(base) {
    for (let variable = this.heap.take(); variable >= 0; variable = this.heap.take()) {
      if (this.trail.value[2 * variable] !== 0) continue;
      const up = base ? base.holds(2 * variable) : this.phase[variable] === 1;
      return 2 * variable + (up ? 0 : 1);
    }
    for (const theory of this.theories.list) {
      const next2 = theory.check(this.overlay(base));
      if (next2 >= 0) return next2;
    }
    return null;
  }
  overlay(base) {
    const { value } = this.trail;
    const { numbers: numbers3 } = this;
    return {
      value: (lit) => value[lit],
      holds: (lit) => value[lit] > 0 || value[lit] === 0 && base !== null && base.holds(lit),
      code: (number4) => {
        const { low, high } = numbers3.bounds(number4);
        return Math.min(high, Math.max(low, base ? base.codes[number4] : low));
      },
      cut: (number4, k) => numbers3.atMost(number4, k),
      bounds: (number4) => numbers3.bounds(number4)
    };
  }
  /** The answer of a finished search. The witness is written out only when it is asked for; most are not. */
  found(base, known2) {
    const { numbers: numbers3, count, trail } = this;
    const changed = [];
    for (let at = base && known2 > 0 ? trail.marks[known2] ?? 0 : 0; at < trail.size; at++) {
      const lit = trail.order[at];
      if (base?.holds(lit)) continue;
      changed.push(lit);
      this.phase[variableOf(lit)] = lit & 1 ? 0 : 1;
    }
    const overlay = this.overlay(base);
    const codes = /* @__PURE__ */ new Map();
    if (base) {
      for (const lit of changed) {
        const number4 = numbers3.ofVariable(variableOf(lit));
        if (number4 >= 0) codes.set(number4, overlay.code(number4));
      }
    } else for (let number4 = 0; number4 < numbers3.size; number4++) codes.set(number4, overlay.code(number4));
    return { is: "yes", changed, witness: () => Witness.from(base, changed, codes, count, numbers3) };
  }
  // ---- propagating and learning ---------------------------------------------------------------------------------------
  propagate() {
    const { trail, clauses, cardinalities, theories } = this;
    for (; ; ) {
      while (trail.head < trail.size) {
        const lit = trail.order[trail.head++];
        const conflict2 = clauses.propagate(lit, trail) || cardinalities.propagate(lit, trail);
        if (conflict2 !== none) {
          trail.head = trail.size;
          return conflict2;
        }
        if (theories.list.length > 0) theories.wakeBy(lit);
      }
      if (!theories.awake) return none;
      const conflict = theories.askOne();
      if (conflict !== none) return conflict;
    }
  }
  /** Learns from a conflict and goes back to where the lesson forces something. False where nothing can hold at all. */
  learnFrom(conflict) {
    const { learning, trail } = this;
    this.conflicts++;
    const deepest3 = learning.depthOf(conflict);
    if (deepest3 === 0) {
      this.possible = false;
      return false;
    }
    this.back(deepest3);
    const { clause, depth, glue } = learning.lesson(conflict, (variable) => this.bump(variable));
    this.raise *= decay;
    this.back(depth);
    trail.settle(clause[0], clause.length === 1 ? none : this.clauses.add(clause, glue + 1));
    return true;
  }
  bump(variable) {
    this.activity[variable] += this.raise;
    if (this.activity[variable] > 1e100) {
      for (let each = 0; each < this.count; each++) this.activity[each] *= 1e-100;
      this.raise *= 1e-100;
    }
    this.heap.raised(variable);
  }
  back(depth) {
    this.trail.back(depth, (variable) => this.heap.add(variable));
    if (this.assumed.length > depth) this.assumed.length = depth;
  }
  /** Keeps the levels whose assumptions are the same as those asked now. */
  keepCommon(assume) {
    const { assumed } = this;
    let common = 0;
    while (common < assumed.length && common < assume.length && assumed[common] === assume[common]) common++;
    this.back(common);
  }
  forget() {
    const { trail } = this;
    this.back(0);
    for (let at = 0; at < trail.size; at++) trail.reason[variableOf(trail.order[at])] = none;
    trail.head = 0;
    this.clauses.forget(trail);
  }
};
function luby(index) {
  let size4 = 1;
  let power = 0;
  while (size4 < index + 1) {
    size4 = 2 * size4 + 1;
    power++;
  }
  let at = index;
  while (size4 - 1 !== at) {
    size4 = size4 - 1 >> 1;
    power--;
    at %= size4;
  }
  return 2 ** power;
}

// src/core/engine/assumed.ts
function assumedOf({ asked = [], decisions }, encoding, byOn) {
  const found = /* @__PURE__ */ new Map();
  for (const [source, list2] of [["asked", asked], ["yours", decisions]]) {
    for (const decision of list2) {
      const variable = byOn.get(decision.on);
      const lits = encoding.decided(decision.on, decision.value);
      if (variable && lits) found.set(decision.on, { decision, variable, lits, source });
    }
  }
  return [...found.values()].sort((a, b) => a.variable.index - b.variable.index);
}
var litsOf = (list2) => list2.flatMap((each) => each.lits);

// src/core/engine/outlook.ts
var noTexts = [];
var nothing2 = { none: false, yes: false, no: false, low: Infinity, high: -Infinity, exact: null, from: Infinity, until: -Infinity, texts: [], list: null };
var anything = { none: true, yes: true, no: true, low: -Infinity, high: Infinity, exact: null, from: -Infinity, until: Infinity, texts: "any", list: "any" };
var anyNumber2 = { ...nothing2, none: true, low: -Infinity, high: Infinity };
var justNone = { ...nothing2, none: true };
var truths2 = [0, 1, 2, 3, 4, 5, 6, 7].map((bits) => ({
  ...nothing2,
  yes: (bits & 1) !== 0,
  no: (bits & 2) !== 0,
  none: (bits & 4) !== 0
}));
var truth2 = (yes2, no2, none2) => truths2[(yes2 ? 1 : 0) | (no2 ? 2 : 0) | (none2 ? 4 : 0)];
var widen = (value, towards) => Number.isInteger(value) && Math.abs(value) < 1e9 ? value : value + towards * (Math.abs(value) * 1e-12 + 1e-15);
var number3 = (low, high, none2, exact2 = null) => low <= high && low < Infinity && high > -Infinity ? { none: none2, yes: false, no: false, low: widen(low, -1), high: widen(high, 1), exact: exact2, from: Infinity, until: -Infinity, texts: noTexts, list: null } : justNone;
var hasNumber = (a) => a.low <= a.high;
var hasDay = (a) => a.from <= a.until;
var hasText = (a) => a.texts === "any" || a.texts.length > 0;
var onlyNumber = (a) => !a.none && !a.yes && !a.no && !hasDay(a) && !hasText(a) && a.list === null;
var onlyDay = (a) => !a.none && !a.yes && !a.no && !hasNumber(a) && !hasText(a) && a.list === null;
var days = (from, until, none2) => from <= until ? { ...nothing2, none: none2, from, until } : justNone;
function lookOf(value) {
  if (value === null) return justNone;
  if (typeof value === "boolean") return truth2(value, !value, false);
  if (typeof value === "string") return { ...nothing2, texts: [value] };
  if (Array.isArray(value)) {
    if (!value.every((item2) => typeof item2 === "string")) return { ...nothing2, list: "any" };
    const items = new Set(value);
    return { ...nothing2, list: { must: items, may: items } };
  }
  if (value instanceof Day) return days(value.number, value.number, false);
  if (value instanceof Span) return anything;
  const rough = value.toNumber();
  return { ...nothing2, low: widen(rough, -1), high: widen(rough, 1), exact: () => value };
}
function look(expr) {
  const sub = look;
  switch (expr.kind) {
    case "literal": {
      const fixed = lookOf(expr.value);
      return () => fixed;
    }
    case "name": {
      const { slot = -1 } = expr;
      return (env) => env(slot);
    }
    case "negate": {
      const of = sub(expr.of);
      return (env) => {
        const a = of(env);
        const { exact: exact2 } = a;
        return number3(-a.high, -a.low, !onlyNumber(a), exact2 && (() => exact2()?.negated() ?? null));
      };
    }
    case "arithmetic": {
      const [left, right, { op }] = [sub(expr.left), sub(expr.right), expr];
      const span = expr.right.kind === "literal" && expr.right.value instanceof Span ? expr.right.value : null;
      if (span && (op === "+" || op === "-")) return (env) => later(left(env), span, op === "+" ? 1 : -1);
      return (env) => arithmetic2(op, left(env), right(env));
    }
    case "compare": {
      const [left, right, { op }] = [sub(expr.left), sub(expr.right), expr];
      return (env) => compare(op, left(env), right(env));
    }
    case "logic": {
      const [left, right] = [sub(expr.left), sub(expr.right)];
      return expr.op === "and" ? (env) => both(left(env), () => right(env)) : (env) => either2(left(env), () => right(env));
    }
    case "in": {
      const value = sub(expr.value);
      const tests = expr.tests.map(lookTest);
      return (env) => {
        const a = value(env);
        let sum = truth2(false, true, false);
        for (const test of tests) sum = either2(sum, () => test(a, env));
        return sum;
      };
    }
    case "if": {
      const [test, then, otherwise] = [sub(expr.test), sub(expr.then), sub(expr.else)];
      return (env) => {
        const t3 = test(env);
        const maybeNot = t3.no || t3.none;
        return t3.yes ? maybeNot ? union(then(env), otherwise(env)) : then(env) : otherwise(env);
      };
    }
    case "list": {
      const items = expr.items.map(sub);
      return (env) => listOf(items.map((item2) => ({ look: item2(env), surely: true })));
    }
    case "pick":
      return pick(expr.of, expr.cases);
    case "gather": {
      const items = gathered(expr.items);
      return (env) => listOf(items(env));
    }
    case "call":
      return call(expr.name, expr.args);
    case "path":
    case "filter":
    case "quantified":
    case "for":
      return unforeseen(expr);
  }
}
function listOf(items) {
  const must = /* @__PURE__ */ new Set();
  const may = /* @__PURE__ */ new Set();
  for (const { look: { texts: texts3, none: none2, yes: yes2, no: no2, low, high, from, until, list: list2 }, surely } of items) {
    if (texts3 === "any" || texts3.length !== 1 || none2 || yes2 || no2 || low <= high || from <= until || list2) return { ...nothing2, list: "any" };
    const [text3 = ""] = texts3;
    if (may.has(text3)) return { ...nothing2, list: "any" };
    may.add(text3);
    if (surely) must.add(text3);
  }
  return { ...nothing2, list: { must, may } };
}
function gathered(items) {
  const looks = items.map(({ when, value }) => ({ when: look(when), value: look(value) }));
  return (env) => looks.flatMap(({ when, value }) => {
    const { yes: yes2, no: no2, none: none2 } = when(env);
    return yes2 ? [{ look: value(env), surely: !no2 && !none2 }] : [];
  });
}
function pick(of, cases) {
  const text3 = look(of);
  const values = new Map(cases.map(([name2, value]) => [name2, look(value)]));
  const plain = cases.every(([, value]) => value.kind === "literal");
  const known2 = /* @__PURE__ */ new Map();
  const made2 = (env, texts3) => texts3.map((name2) => values.get(name2)?.(env) ?? justNone).reduce(union, nothing2);
  return (env) => {
    const seen = text3(env);
    if (seen.texts === "any") return [...values.values()].map((value) => value(env)).reduce(union, justNone);
    const key = seen.texts.join();
    const found = (plain ? known2.get(key) : void 0) ?? made2(env, seen.texts);
    if (plain && known2.size < 1e3) known2.set(key, found);
    const other = seen.none || seen.yes || seen.no || hasNumber(seen) || hasDay(seen) || seen.list !== null;
    return other ? union(found, justNone) : found;
  };
}
function later(a, { unit, amount }, sign) {
  if (!hasDay(a)) return hasNumber(a) || hasText(a) || a.list !== null || a.yes || a.no ? anything : justNone;
  const moved = (length) => sign * amount * length;
  const [near, far] = unit === "seconds" ? [moved(1 / 86400), moved(1 / 86400)] : [moved(28), moved(31)];
  return { ...days(Math.floor(a.from + Math.min(near, far)) - 1, Math.ceil(a.until + Math.max(near, far)) + 1, true), ...onlyDay(a) ? {} : { none: true } };
}
function unforeseen(expr) {
  const slots = [...namesIn(expr).values()];
  return (env) => {
    for (const slot of slots) env(slot);
    return anything;
  };
}
function call(name2, args) {
  const looks = args.map(look);
  const [first2 = () => anything, second] = looks;
  const rounding = (apply) => {
    const places = args[1] === void 0 ? 0 : args[1].kind === "literal" && args[1].value instanceof Exact ? args[1].value.toNumber() : null;
    return (env) => {
      const a = first2(env);
      second?.(env);
      if (places === null) return anyNumber2;
      const unit = 10 ** -places;
      return { ...nothing2, none: !onlyNumber(a), low: apply && places === 0 ? apply(a.low) : a.low - unit, high: apply && places === 0 ? apply(a.high) : a.high + unit };
    };
  };
  const only = args.length === 1 ? args[0] : void 0;
  const given = only?.kind === "list" ? only.items.map(look) : looks;
  const items = only?.kind === "gather" ? gathered(only.items) : (env) => given.map((item2) => ({ look: item2(env), surely: true }));
  const fold = (apply, missing) => (env) => {
    const all2 = items(env);
    if (all2.length === 0) return justNone;
    if (!all2.every(({ look: each }) => hasNumber(each) || each.none) || all2.some(({ look: each }) => each.list !== null)) return anyNumber2;
    if (!all2.every(({ look: each, surely }) => hasNumber(each) || !surely)) return justNone;
    const lows = all2.map(({ look: each, surely }) => surely ? each.low : Math.min(each.low, missing.low));
    const highs = all2.map(({ look: each, surely }) => surely ? each.high : Math.max(each.high, missing.high));
    const none2 = !all2.every(({ look: each }) => onlyNumber(each)) || !all2.some((each) => each.surely);
    return number3(apply(lows), apply(highs), none2);
  };
  switch (name2) {
    case "not":
      return (env) => {
        const a = first2(env);
        return truth2(a.no, a.yes, a.none || hasNumber(a) || hasDay(a) || hasText(a) || a.list !== null);
      };
    case "ceiling":
      return rounding(Math.ceil);
    case "floor":
      return rounding(Math.floor);
    case "decimal":
    case "round up":
    case "round down":
    case "round half up":
    case "round half down":
      return rounding(null);
    case "abs":
      return (env) => {
        const a = first2(env);
        if (!hasNumber(a)) return justNone;
        const low = a.low <= 0 && a.high >= 0 ? 0 : Math.min(Math.abs(a.low), Math.abs(a.high));
        return number3(low, Math.max(Math.abs(a.low), Math.abs(a.high)), !onlyNumber(a));
      };
    case "min":
      return fold((values) => Math.min(...values), { low: Infinity, high: Infinity });
    case "max":
      return fold((values) => Math.max(...values), { low: -Infinity, high: -Infinity });
    case "sum":
      return fold((values) => values.reduce((a, b) => a + b, 0), { low: 0, high: 0 });
    case "count":
      if (only?.kind === "gather") {
        return (env) => {
          const all2 = items(env);
          return { ...nothing2, low: all2.filter((each) => each.surely).length, high: all2.length };
        };
      }
      return (env) => {
        const { list: list2 } = first2(env);
        return list2 && list2 !== "any" ? { ...nothing2, low: list2.must.size, high: list2.may.size } : anyNumber2;
      };
    case "list contains":
      return second ? (env) => member(second(env), first2(env)) : () => anything;
    default:
      return (env) => {
        for (const each of looks) each(env);
        return anything;
      };
  }
}
function lookTest(test) {
  if (test.kind === "interval") {
    const [low, high] = [look(test.low), look(test.high)];
    return (value, env) => both(compare(test.lowOpen ? ">" : ">=", value, low(env)), () => compare(test.highOpen ? "<" : "<=", value, high(env)));
  }
  const expr = look(test.expr);
  if (test.kind === "compare") return (value, env) => compare(test.op, value, expr(env));
  return (value, env) => {
    const other = expr(env);
    return other.list !== null && value.list === null ? member(value, other) : same(value, other);
  };
}
function member(item2, holder) {
  const { list: list2 } = holder;
  if (list2 === null || list2 === "any" || item2.texts === "any" || hasNumber(item2) || hasDay(item2) || item2.yes || item2.no || item2.none) return truth2(true, true, true);
  const yes2 = item2.texts.some((text3) => list2.may.has(text3));
  const surely = item2.texts.every((text3) => list2.must.has(text3));
  return truth2(yes2, !surely, holder.none);
}
function same(a, b) {
  const texts3 = a.texts === "any" || b.texts === "any" ? hasText(a) && hasText(b) : a.texts.length === 1 ? b.texts.includes(a.texts[0]) : a.texts.some((text3) => b.texts.includes(text3));
  const numbers3 = a.low <= b.high && b.low <= a.high;
  const dates = a.from <= b.until && b.from <= a.until;
  const yes2 = texts3 || numbers3 || dates || a.yes && b.yes || a.no && b.no || a.none && b.none || a.list !== null && b.list !== null;
  const single = size(a) === 1 && size(b) === 1;
  if (numbers3 && !single) {
    const found = decided("=", a, b);
    if (found) return found;
  }
  return truth2(yes2, !(yes2 && single), !single && mixed2(a, b));
}
function size(a) {
  const numbers3 = !hasNumber(a) ? 0 : a.low === a.high ? 1 : 2;
  const dates = !hasDay(a) ? 0 : a.from === a.until ? 1 : 2;
  const texts3 = a.texts === "any" ? 2 : a.texts.length;
  return numbers3 + dates + texts3 + (a.none ? 1 : 0) + (a.yes ? 1 : 0) + (a.no ? 1 : 0) + (a.list === null ? 0 : 2);
}
function mixed2(a, b) {
  const kinds = (each) => (hasNumber(each) ? 1 : 0) | (hasText(each) ? 2 : 0) | (each.yes || each.no ? 4 : 0) | (each.list === null ? 0 : 8) | (hasDay(each) ? 16 : 0);
  const all2 = kinds(a) | kinds(b);
  return (all2 & all2 - 1) !== 0;
}
function compare(op, a, b) {
  if (op === "=") return same(a, b);
  if (op === "!=") {
    const equal2 = same(a, b);
    return truth2(equal2.no, equal2.yes, equal2.none);
  }
  if (hasText(a) || hasText(b)) return truth2(true, true, true);
  if (hasDay(a) && hasDay(b) && !hasNumber(a) && !hasNumber(b)) return ordered(op, a.from, a.until, b.from, b.until, !onlyDay(a) || !onlyDay(b));
  if (hasDay(a) || hasDay(b)) return truth2(true, true, true);
  const none2 = !onlyNumber(a) || !onlyNumber(b);
  if (!hasNumber(a) || !hasNumber(b)) return truth2(false, false, none2);
  const rough = ordered(op, a.low, a.high, b.low, b.high, none2);
  return rough.yes && rough.no ? decided(op, a, b) ?? rough : rough;
}
function decided(op, a, b) {
  if (!a.exact || !b.exact || !onlyNumber(a) || !onlyNumber(b)) return void 0;
  const [left, right] = [a.exact(), b.exact()];
  const holds3 = left && right ? compareValues(op, left, right) : null;
  return holds3 === null ? void 0 : truth2(holds3, !holds3, false);
}
function ordered(op, aLow, aHigh, bLow, bHigh, none2) {
  switch (op) {
    case "<":
      return truth2(aLow < bHigh, aHigh >= bLow, none2);
    case "<=":
      return truth2(aLow <= bHigh, aHigh > bLow, none2);
    case ">":
      return truth2(aHigh > bLow, aLow <= bHigh, none2);
    default:
      return truth2(aHigh >= bLow, aLow < bHigh, none2);
  }
}
function arithmetic2(op, a, b) {
  const exact2 = exactOf(op, a, b);
  if (hasText(a) || hasText(b) || hasDay(a) || hasDay(b)) return anything;
  const none2 = !onlyNumber(a) || !onlyNumber(b);
  if (!hasNumber(a) || !hasNumber(b)) return justNone;
  if (op === "+") return number3(a.low + b.low, a.high + b.high, none2, exact2);
  if (op === "-") return number3(a.low - b.high, a.high - b.low, none2, exact2);
  if (op === "**" || op === "/" && b.low <= 0 && b.high >= 0) return anyNumber2;
  const at = (x, y) => {
    const result = op === "*" ? x * y : x / y;
    return Number.isNaN(result) ? 0 : result;
  };
  const corners = [at(a.low, b.low), at(a.low, b.high), at(a.high, b.low), at(a.high, b.high)];
  return number3(Math.min(...corners), Math.max(...corners), none2, exact2);
}
function exactOf(op, a, b) {
  const [left, right] = [a.exact, b.exact];
  if ((op === "*" || op === "/") && left && a.low === 0 && a.high === 0) return left;
  if (op === "*" && right && b.low === 0 && b.high === 0) return right;
  if (!left || !right) return null;
  return () => {
    const [x, y] = [left(), right()];
    const value = x && y ? arithmetic(op, x, y) : null;
    return value instanceof Exact ? value : null;
  };
}
function both(a, right) {
  if (!a.yes && !a.none) return truth2(false, true, false);
  const b = right();
  return truth2(a.yes && b.yes, a.no || b.no, a.none && (b.yes || b.none) || a.yes && b.none);
}
function either2(a, right) {
  if (!a.no && !a.none) return truth2(true, false, false);
  const b = right();
  return truth2(a.yes || b.yes, a.no && b.no, a.none && (b.no || b.none) || a.no && b.none);
}
function union(a, b) {
  if (a === nothing2) return b;
  if (b === nothing2) return a;
  const list2 = a.list === null ? b.list : b.list === null ? a.list : a.list === "any" || b.list === "any" ? "any" : { must: new Set([...a.list.must].filter((text3) => b.list.must.has(text3))), may: /* @__PURE__ */ new Set([...a.list.may, ...b.list.may]) };
  return {
    none: a.none || b.none,
    yes: a.yes || b.yes,
    no: a.no || b.no,
    low: Math.min(a.low, b.low),
    high: Math.max(a.high, b.high),
    exact: null,
    from: Math.min(a.from, b.from),
    until: Math.max(a.until, b.until),
    texts: a.texts === "any" || b.texts === "any" ? "any" : [.../* @__PURE__ */ new Set([...a.texts, ...b.texts])],
    list: list2
  };
}
function lookOfAll(values) {
  let low = Infinity;
  let high = -Infinity;
  let from = Infinity;
  let until = -Infinity;
  const texts3 = [];
  let [none2, yes2, no2] = [false, false, false];
  for (const value of values) {
    if (value === null) none2 = true;
    else if (value === true) yes2 = true;
    else if (value === false) no2 = true;
    else if (typeof value === "string") texts3.push(value);
    else if (value instanceof Day) [from, until] = [Math.min(from, value.number), Math.max(until, value.number)];
    else if (value instanceof Exact) {
      const rough = value.toNumber();
      low = Math.min(low, widen(rough, -1));
      high = Math.max(high, widen(rough, 1));
    }
  }
  const only = values.length === 1 ? values[0] : void 0;
  return { ...nothing2, none: none2, yes: yes2, no: no2, low, high, from, until, texts: texts3, exact: only instanceof Exact ? () => only : null };
}

// src/core/engine/rows.ts
function makeRow(entry, slot, solver, existing) {
  if (entry.kind === "context" || entry.kind === "calculation" || entry.kind === "text") return null;
  const shown = entry.shownWhen ? (entry.shownBy ? void 0 : existing.get(entry.shownWhen)) ?? solver.add() : always;
  if (entry.shownWhen && !entry.shownBy) existing.set(entry.shownWhen, shown);
  const base = { id: entry.kind === "length" ? entry.text : entry.id, slot, shown };
  switch (entry.kind) {
    case "number":
    case "date":
    case "length":
      return { ...base, kind: "number", number: solver.addNumber(entry.grid.count), entry };
    case "yesno": {
      const latent = solver.add();
      return { ...base, kind: "yesno", latent, yes: both2(solver, shown, latent), no: both2(solver, shown, not(latent)) };
    }
    case "feature": {
      const ids = entry.feature.options.map((option) => option.id);
      const latent = ids.map(() => solver.add());
      const taken = latent.map((lit) => both2(solver, shown, lit));
      if (entry.many) return { ...base, kind: "many", ids, latent, taken };
      const latentNone = entry.feature.least === 0 ? solver.add() : never;
      const all2 = latentNone === never ? latent : [...latent, latentNone];
      solver.addClause(all2);
      solver.addAtMost(all2, 1);
      return { ...base, kind: "choice", ids, latent, taken, latentNone, none: both2(solver, shown, latentNone) };
    }
  }
}
function both2(solver, a, b) {
  if (a === always || a === b) return b;
  if (b === always) return a;
  if (a === never || b === never || a === not(b)) return never;
  const made2 = solver.add();
  solver.addClause([not(made2), a]);
  solver.addClause([not(made2), b]);
  solver.addClause([made2, not(a), not(b)]);
  return made2;
}
function decided2(row, option, value, solver) {
  switch (row.kind) {
    case "choice": {
      if (value === null) return row.latentNone === never ? null : [row.latentNone];
      const lit = typeof value === "string" ? row.latent[row.ids.indexOf(value)] : void 0;
      return lit === void 0 ? null : [lit];
    }
    case "many": {
      const lit = row.latent[row.ids.indexOf(option ?? "")];
      return lit === void 0 || typeof value !== "boolean" ? null : [value ? lit : not(lit)];
    }
    case "yesno":
      return typeof value === "boolean" ? [value ? row.latent : not(row.latent)] : null;
    case "number": {
      const code = typeof value === "boolean" ? null : codeOf(row.entry.grid, value);
      return code === null ? null : between(row.number, code, code, solver);
    }
  }
}
function wanted(row, option, value, solver) {
  const latent = decided2(row, option, value, solver);
  return latent && [row.shown, ...latent].filter((lit) => lit !== always);
}
function between(number4, from, to, solver) {
  return [not(solver.atMost(number4, from - 1)), solver.atMost(number4, to)].filter((lit) => lit !== always);
}

// src/core/engine/sight.ts
function evidenceOf(row, settled) {
  const found = [];
  const tell = (lit) => {
    if (lit === always || lit === never) return;
    const value = settled.value(lit);
    if (value !== 0) found.push({ lit: value > 0 ? lit : not(lit) });
  };
  switch (row.kind) {
    case "choice": {
      const one = [...row.taken, row.none].find((lit) => lit !== never && settled.value(lit) > 0);
      if (one !== void 0 && one !== always) return [{ lit: one }];
      tell(row.shown);
      for (const lit of row.taken) tell(lit);
      tell(row.none);
      return found;
    }
    case "many":
      for (const lit of row.taken) tell(lit);
      return found;
    case "yesno":
      tell(row.shown);
      tell(row.yes);
      if (row.shown !== always) tell(row.no);
      return found;
    case "number": {
      tell(row.shown);
      const { low, high, lowLit, highLit } = settled.bounds(row.number);
      if (lowLit !== always) found.push({ lit: lowLit, low });
      if (highLit !== always) found.push({ lit: highLit, high });
      return found;
    }
  }
}
var numbers2 = /* @__PURE__ */ new WeakMap();
function numberAt(row, code) {
  const known2 = numbers2.get(row) ?? /* @__PURE__ */ new Map();
  numbers2.set(row, known2);
  const before = known2.get(code);
  if (before !== void 0) return before;
  const found = valueAt(row.entry.grid, code);
  if (known2.size < 5e4) known2.set(code, found);
  return found;
}
var sightOf = (row, evidence) => ({ evidence, ...seenOf(row, evidence) });
function seenOf(row, evidence) {
  const holds3 = (lit) => lit === always || evidence.some((each) => each.lit === lit);
  const fails = (lit) => lit === never || evidence.some((each) => each.lit === not(lit));
  if (row.kind === "many") {
    const may = new Set(fails(row.shown) ? [] : row.ids.filter((_, index) => !fails(row.taken[index])));
    const must = new Set(row.ids.filter((_, index) => holds3(row.taken[index])));
    return { outlook: { ...lookOfAll([]), list: { must, may } }, value: may.size === must.size ? [...must] : void 0 };
  }
  const values = [];
  const hidden = !holds3(row.shown);
  if (row.kind === "number") {
    const low = evidence.find((each) => each.low !== void 0)?.low ?? 0;
    const high = evidence.find((each) => each.high !== void 0)?.high ?? row.entry.grid.count - 1;
    const first2 = row.entry.grid.optional && low === 0 && high > 0 ? [numberAt(row, 1)] : [];
    if (!fails(row.shown)) values.push(numberAt(row, low), ...first2, ...high > low ? [numberAt(row, high)] : []);
  } else {
    const options2 = row.kind === "yesno" ? [[row.yes, true], [row.no, false]] : [...row.taken.map((lit, index) => [lit, row.ids[index]]), [row.none, null]];
    const one = options2.find(([lit]) => lit !== always && holds3(lit));
    if (one) return { outlook: lookOf(one[1]), value: one[1] };
    if (!fails(row.shown)) {
      for (const [lit, value] of options2) if (!fails(lit)) values.push(value);
    }
  }
  if (hidden) values.push(null);
  return { outlook: lookOfAll(values), value: values.length === 1 ? values[0] : void 0 };
}

// src/core/engine/truth.ts
var mostLeaves = 400;
var mostOpen = 2;
var piece = -1;
var Subject = class {
  constructor(model, look2, run, lookOfCalculation, fixed, rows) {
    this.model = model;
    this.look = look2;
    this.run = run;
    this.lookOfCalculation = lookOfCalculation;
    this.fixed = fixed;
    this.rows = rows;
    for (const row of rows) this.rowOf.set(row.slot, row);
  }
  model;
  look;
  run;
  lookOfCalculation;
  fixed;
  /** Rows read, in the order they are first read. */
  rows;
  rowOf = /* @__PURE__ */ new Map();
  /** What can come out by the sights given; `unsettled` collects the rows it read that have several values left. */
  outcomes(sights, unsettled2) {
    const { outlook, certain } = this.seen(sights, unsettled2);
    const found = { yes: outlook.yes, no: outlook.no, none: outlook.none };
    if (Number(found.yes) + Number(found.no) + Number(found.none) <= 1 || !certain) return found;
    let whole2 = true;
    const value = this.exact((slot) => {
      const sight = sights.get(slot);
      if (sight.value === void 0) whole2 = false;
      return sight.value ?? null;
    });
    return whole2 ? outcomeOf(value) : found;
  }
  /** The formula's outlook by the sights given, and whether all it read was settled. */
  seen(sights, unsettled2) {
    const known2 = /* @__PURE__ */ new Map();
    let certain = true;
    const env = (slot) => {
      const before = known2.get(slot);
      if (before) return before;
      const entry = this.model.entries[slot];
      let seen;
      if (!entry) seen = anything;
      else if (entry.kind === "calculation") seen = this.lookOfCalculation(slot)(env);
      else if (entry.kind === "context") seen = lookOf(this.fixed(slot));
      else {
        const sight = sights.get(slot);
        if (sight.value === void 0) {
          certain = false;
          unsettled2?.add(this.rowOf.get(slot));
        }
        seen = sight.outlook;
      }
      known2.set(slot, seen);
      return seen;
    };
    return { outlook: this.look(env), certain };
  }
  exact(valueOf) {
    const known2 = /* @__PURE__ */ new Map();
    const env = (slot) => {
      const before = known2.get(slot);
      if (before !== void 0) return before;
      const entry = this.model.entries[slot];
      const value = !entry ? null : entry.kind === "calculation" ? entry.formula.run(env) : entry.kind === "context" ? this.fixed(slot) : valueOf(slot);
      known2.set(slot, value);
      return value;
    };
    return this.run(env);
  }
};
var outcomeOf = (value) => ({ yes: value === true, no: value === false, none: value !== true && value !== false });
function truthOf(subject, solver, wide) {
  const grown2 = grow(subject, solver);
  if (grown2) return define(grown2, solver);
  const truth3 = { yes: solver.add(), no: solver.add() };
  solver.addClause([not(truth3.yes), not(truth3.no)]);
  const theory = new ConditionTheory(subject, truth3);
  solver.addTheory(theory);
  wide.push(theory);
  return truth3;
}
function grow(subject, solver) {
  const leaves = [];
  const paths = new Map(subject.rows.map((row) => [row, []]));
  const sights = new Map(subject.rows.map((row) => [row.slot, sightOf(row, [])]));
  let left = mostLeaves;
  const visit = () => {
    if (left < 0) return false;
    const unsettled2 = /* @__PURE__ */ new Set();
    const { yes: yes2, no: no2, none: none2 } = subject.outcomes(sights, unsettled2);
    if (Number(yes2) + Number(no2) + Number(none2) === 1) {
      left--;
      leaves.push({ lits: [...paths.values()].flat().map((each) => each.lit), outcome: yes2 ? "yes" : no2 ? "no" : "none" });
      return true;
    }
    const row = next(unsettled2, paths);
    if (!row) return false;
    const before = paths.get(row);
    if (row.shown !== always && before.length === 0) {
      const together = subject.rows.filter((each) => each.shown === row.shown);
      return [not(row.shown), row.shown].every((lit) => within(together, () => [{ lit }]));
    }
    return branches(row, before, solver).every((evidence) => within([row], () => evidence));
  };
  const within = (rows, evidence) => {
    const before = rows.map((row) => ({ row, path: paths.get(row), sight: sights.get(row.slot) }));
    for (const row of rows) {
      paths.set(row, evidence());
      sights.set(row.slot, sightOf(row, evidence()));
    }
    const fine = visit();
    for (const { row, path, sight } of before) {
      paths.set(row, path);
      sights.set(row.slot, sight);
    }
    return fine;
  };
  return visit() ? leaves : null;
}
function next(unsettled2, paths) {
  const rows = [...unsettled2];
  return rows.find((row) => row.kind !== "number") ?? rows.sort((a, b) => (paths.get(a)?.length ?? 0) - (paths.get(b)?.length ?? 0) || width2(b, paths) - width2(a, paths))[0];
}
function width2(row, paths) {
  if (row.kind !== "number") return 0;
  const path = paths.get(row) ?? [];
  return ((path.find((each) => each.high !== void 0)?.high ?? row.entry.grid.count - 1) - (path.find((each) => each.low !== void 0)?.low ?? 0)) / row.entry.grid.count;
}
function branches(row, before, solver) {
  switch (row.kind) {
    case "choice":
      return [...row.taken, row.none].filter((lit) => lit !== never).map((lit) => [{ lit }]);
    case "yesno":
      return [[{ lit: row.yes }], [{ lit: row.no }]];
    case "many": {
      const open2 = row.taken.find((lit) => !before.some((each) => variableOf(each.lit) === variableOf(lit)));
      return [[...before, { lit: open2 }], [...before, { lit: not(open2) }]];
    }
    case "number": {
      const shown = row.shown === always ? [] : [{ lit: row.shown }];
      const low = before.find((each) => each.low !== void 0)?.low ?? 0;
      const high = before.find((each) => each.high !== void 0)?.high ?? row.entry.grid.count - 1;
      const middle = low + high >> 1;
      const range = (from, to) => {
        const [above, below] = [solver.atMost(row.number, from - 1), solver.atMost(row.number, to)];
        return [...shown, ...above === never ? [] : [{ lit: not(above), low: from }], ...below === always ? [] : [{ lit: below, high: to }]];
      };
      return [range(low, middle), range(middle + 1, high)];
    }
  }
}
function define(leaves, solver) {
  const has = (outcome) => leaves.some((leaf) => leaf.outcome === outcome);
  const yes2 = !has("yes") ? never : has("no") || has("none") ? solver.add() : always;
  const no2 = !has("no") ? never : !has("none") ? not(yes2) : !has("yes") && !has("none") ? always : solver.add();
  for (const { lits, outcome } of leaves) {
    const opposite2 = lits.map(not);
    if (yes2 !== always && yes2 !== never) solver.addClause([...opposite2, outcome === "yes" ? yes2 : not(yes2)]);
    if (no2 !== always && no2 !== never && no2 !== not(yes2)) solver.addClause([...opposite2, outcome === "no" ? no2 : not(no2)]);
  }
  return { yes: yes2, no: no2 };
}
var ConditionTheory = class {
  constructor(subject, truth3) {
    this.subject = subject;
    this.truth = truth3;
    const { rows } = subject;
    this.numbers = rows.flatMap((row) => row.kind === "number" ? [row.number] : []);
    this.lits = [truth3.yes, truth3.no, ...rows.flatMap((row) => [row.shown, ...row.kind === "yesno" ? [row.yes, row.no] : row.kind === "number" ? [] : row.taken, ...row.kind === "choice" ? [row.none] : []])].filter(
      (lit) => lit !== always && lit !== never
    );
  }
  subject;
  truth;
  lits;
  numbers;
  propagate(clauses) {
    const { rows } = this.subject;
    const evidence = new Map(rows.map((row) => [row, evidenceOf(row, clauses)]));
    const sights = new Map(rows.map((row) => [row.slot, sightOf(row, evidence.get(row))]));
    const { yes: yes2, no: no2, none: none2 } = this.subject.outcomes(sights);
    const claims = [
      [!yes2, not(this.truth.yes), (found) => !found.yes],
      [!no2, not(this.truth.no), (found) => !found.no],
      [!no2 && !none2, this.truth.yes, (found) => !found.no && !found.none],
      [!yes2 && !none2, this.truth.no, (found) => !found.yes && !found.none]
    ];
    for (const [holds3, lit, still] of claims) {
      if (!holds3 || clauses.value(lit) > 0) continue;
      if (!clauses.imply([lit, ...this.least(evidence, still).map(not)])) return;
    }
    this.shave(clauses, evidence, sights);
  }
  /** Cuts from the ends of numbers what the truth that is settled rules out. */
  shave(clauses, evidence, sights) {
    const [yes2, no2] = [clauses.value(this.truth.yes), clauses.value(this.truth.no)];
    const refuted = (found) => yes2 > 0 && !found.yes || yes2 < 0 && !found.no && !found.none || no2 > 0 && !found.no || no2 < 0 && !found.yes && !found.none;
    const settled = [this.truth.yes, this.truth.no].flatMap((lit) => clauses.value(lit) > 0 ? [not(lit)] : clauses.value(lit) < 0 ? [lit] : []);
    const open2 = this.subject.rows.filter((row) => sights.get(row.slot).value === void 0);
    if (settled.length === 0 || open2.length > mostOpen) return;
    for (const row of open2) {
      if (row.kind !== "number") continue;
      for (const upper of [false, true]) {
        const now = clauses.bounds(row.number);
        const width3 = now.high - now.low;
        for (let size4 = width3 >> 1; size4 >= 1 && size4 > width3 >> 5; size4 >>= 2) {
          const edge = upper ? now.high - size4 + 1 : now.low + size4 - 1;
          const own = [
            ...evidence.get(row).filter((each) => each.low === void 0 && each.high === void 0),
            upper ? { lit: piece, low: edge } : { lit: now.lowLit, low: now.low },
            upper ? { lit: now.highLit, high: now.high } : { lit: piece, high: edge }
          ];
          const before = sights.get(row.slot);
          sights.set(row.slot, sightOf(row, own));
          const cutOff = refuted(this.subject.outcomes(sights));
          sights.set(row.slot, before);
          if (!cutOff) continue;
          const reasons = this.least(new Map(evidence).set(row, own), refuted, row).filter((lit) => lit !== piece && lit !== always);
          const bound2 = upper ? clauses.cut(row.number, edge - 1) : not(clauses.cut(row.number, edge));
          clauses.imply([bound2, ...settled, ...reasons.map(not)]);
          return;
        }
      }
    }
  }
  /** A smallest part of the evidence that still makes the claim; that of one row may be held fast. */
  least(evidence, still, fast) {
    const kept = new Map(evidence);
    const sights = new Map([...kept].map(([row, list2]) => [row.slot, sightOf(row, list2)]));
    const without = (row, fewer) => {
      const before = sights.get(row.slot);
      sights.set(row.slot, sightOf(row, fewer));
      if (still(this.subject.outcomes(sights))) {
        kept.set(row, fewer);
        return true;
      }
      sights.set(row.slot, before);
      return false;
    };
    for (const [row, list2] of evidence) {
      if (row === fast || list2.length === 0 || without(row, []) || list2.length > 16) continue;
      for (const each of list2) {
        const now = kept.get(row);
        if (now.length > 1) without(row, now.filter((other) => other !== each));
      }
    }
    return [...kept.values()].flat().map((each) => each.lit);
  }
  check(overlay) {
    const sights = new Map(this.subject.rows.map((row) => [row.slot, settledSight(row, overlay)]));
    const { yes: yes2, no: no2 } = this.subject.outcomes(sights);
    if (yes2 === overlay.holds(this.truth.yes) && no2 === overlay.holds(this.truth.no)) return -1;
    for (const row of this.subject.rows) {
      const lits = [row.shown, ...row.kind === "yesno" ? [row.latent, row.yes] : row.kind === "number" ? [] : [...row.latent, ...row.taken]];
      const open3 = lits.find((lit) => overlay.value(lit) === 0 && overlay.holds(lit)) ?? lits.find((lit) => overlay.value(lit) === 0);
      if (open3 !== void 0) return overlay.holds(open3) ? open3 : not(open3);
    }
    const half = halve(this.subject.rows, overlay);
    if (half >= 0) return half;
    const open2 = [this.truth.yes, this.truth.no].find((lit) => overlay.value(lit) === 0) ?? this.truth.yes;
    return (open2 === this.truth.yes ? yes2 : no2) ? open2 : not(open2);
  }
  /** Whether the condition stays as it is in a witness for every value of one of its numbers from one to another. */
  steady(row, from, to, witness) {
    const settled = { value: (lit) => witness.holds(lit) ? 1 : -1, bounds: () => ({ low: 0, high: 0, lowLit: always, highLit: always }) };
    const sights = /* @__PURE__ */ new Map();
    for (const each of this.subject.rows) {
      if (each.kind !== "number") sights.set(each.slot, sightOf(each, evidenceOf(each, settled)));
      else {
        const shown = witness.holds(each.shown) ? each.shown : not(each.shown);
        const [low, high] = each === row ? [from, to] : [witness.codes[each.number], witness.codes[each.number]];
        sights.set(each.slot, sightOf(each, [{ lit: shown }, { lit: -1, low }, { lit: -1, high }]));
      }
    }
    const { yes: yes2, no: no2, none: none2 } = this.subject.outcomes(sights);
    return Number(yes2) + Number(no2) + Number(none2) === 1;
  }
};
function halve(rows, overlay) {
  let widest = null;
  let most = 0;
  for (const row of rows) {
    if (row.kind !== "number") continue;
    const { low, high } = overlay.bounds(row.number);
    const width3 = (high - low) / row.entry.grid.count;
    if (width3 > most) [widest, most] = [{ number: row.number, low, high }, width3];
  }
  if (!widest) return -1;
  const middle = widest.low + widest.high >> 1;
  const cut = overlay.cut(widest.number, middle);
  return overlay.code(widest.number) <= middle ? cut : not(cut);
}
function settledSight(row, witness) {
  if (row.kind !== "number") return sightOf(row, evidenceOf(row, { value: (lit) => witness.holds(lit) ? 1 : -1, bounds: () => ({ low: 0, high: 0, lowLit: always, highLit: always }) }));
  if (!witness.holds(row.shown)) return sightOf(row, [{ lit: not(row.shown) }]);
  const code = witness.code(row.number);
  return sightOf(row, [{ lit: row.shown }, { lit: -1, low: code }, { lit: -1, high: code }]);
}
function valueIn(row, witness) {
  switch (row.kind) {
    case "choice": {
      const index = row.taken.findIndex((lit) => witness.holds(lit));
      return index < 0 ? null : row.ids[index];
    }
    case "many":
      return row.ids.filter((_, index) => witness.holds(row.taken[index]));
    case "yesno":
      return witness.holds(row.yes) ? true : witness.holds(row.no) ? false : null;
    case "number":
      return witness.holds(row.shown) ? sightOf(row, [{ lit: row.shown }, { lit: -1, low: witness.code(row.number) }, { lit: -1, high: witness.code(row.number) }]).value ?? null : null;
  }
}

// src/core/engine/conditions.ts
var yes = { yes: always, no: never };
var no = { yes: never, no: always };
var nothing3 = { yes: never, no: never };
var opposite = ({ yes: yes2, no: no2 }) => ({ yes: no2, no: yes2 });
var plainly = (lit) => ({ yes: lit, no: not(lit) });
var Conditions = class {
  constructor(model, rowOfSlot, context, solver) {
    this.model = model;
    this.rowOfSlot = rowOfSlot;
    this.context = context;
    this.solver = solver;
  }
  model;
  rowOfSlot;
  context;
  solver;
  /** Conditions too wide for clauses. */
  wide = [];
  known = /* @__PURE__ */ new Map();
  pairs = /* @__PURE__ */ new Map();
  looks = /* @__PURE__ */ new Map();
  of(formula) {
    return this.truth(formula.expr);
  }
  /** A literal that holds where all do. */
  all(lits) {
    return lits.reduce((a, b) => this.both(a, b), always);
  }
  any(lits) {
    return not(this.all(lits.map(not)));
  }
  both(a, b) {
    const key = a < b ? `${String(a)},${String(b)}` : `${String(b)},${String(a)}`;
    const known2 = this.pairs.get(key) ?? both2(this.solver, a, b);
    this.pairs.set(key, known2);
    return known2;
  }
  truth(expr) {
    const key = keyOf(expr);
    const known2 = this.known.get(key) ?? this.make(expr);
    this.known.set(key, known2);
    return known2;
  }
  make(expr) {
    return this.combined(expr) ?? this.compared(expr) ?? this.other(expr);
  }
  combined(expr) {
    switch (expr.kind) {
      case "literal":
        return expr.value === true ? yes : expr.value === false ? no : nothing3;
      case "logic": {
        const [a, b] = [this.truth(expr.left), this.truth(expr.right)];
        return expr.op === "and" ? { yes: this.all([a.yes, b.yes]), no: this.any([a.no, b.no]) } : { yes: this.any([a.yes, b.yes]), no: this.all([a.no, b.no]) };
      }
      case "if": {
        const [test, then, otherwise] = [this.truth(expr.test), this.truth(expr.then), this.truth(expr.else)];
        const either3 = (side) => this.any([this.all([test.yes, then[side]]), this.all([not(test.yes), otherwise[side]])]);
        return { yes: either3("yes"), no: either3("no") };
      }
      case "name": {
        const row = this.row(expr);
        if (row?.kind === "yesno") return { yes: row.yes, no: row.no };
        const entry = this.entry(expr);
        return entry?.kind === "calculation" ? this.truth(entry.formula.expr) : null;
      }
      case "call":
        if (expr.name === "not" && expr.args[0]) return opposite(this.truth(expr.args[0]));
        if (expr.name === "list contains" && expr.args.length === 2) return this.member(expr.args[1], expr.args[0]);
        return null;
      default:
        return null;
    }
  }
  compared(expr) {
    if (expr.kind === "compare" && (expr.op === "=" || expr.op === "!=")) {
      const same2 = this.same(expr.left, expr.right) ?? this.same(expr.right, expr.left);
      return same2 && expr.op === "!=" ? opposite(same2) : same2;
    }
    if (expr.kind !== "in") return null;
    const tests = expr.tests.map((test) => this.test(expr.value, test));
    return tests.every((each) => each !== null) ? { yes: this.any(tests.map((each) => each.yes)), no: this.all(tests.map((each) => each.no)) } : null;
  }
  test(value, test) {
    if (test.kind !== "equals") return null;
    if (test.expr.kind === "list") {
      const items = test.expr.items.map((item2) => this.same(value, item2));
      return items.every((each) => each !== null) ? plainly(this.any(items.map((each) => each.yes))) : null;
    }
    if (this.row(test.expr)?.kind === "many") return this.member(value, test.expr);
    return this.same(value, test.expr);
  }
  /** A text in the list of a multiple choice. */
  member(item2, list2) {
    const row = this.row(list2);
    if (row?.kind !== "many" || item2.kind !== "literal" || typeof item2.value !== "string") return null;
    return plainly(row.taken[row.ids.indexOf(item2.value)] ?? never);
  }
  /** A row equal to a literal; null where it is something else. Equality with null is never null itself. */
  same(side, other) {
    const row = this.row(side);
    if (!row || other.kind !== "literal") return null;
    const { value } = other;
    if (value === null) return row.kind === "many" ? no : row.kind === "choice" ? plainly(not(this.any(row.taken))) : row.kind === "number" && row.entry.grid.optional ? plainly(this.any([not(row.shown), this.solver.atMost(row.number, 0)])) : plainly(not(row.shown));
    if (row.kind === "choice" && typeof value === "string") return plainly(row.taken[row.ids.indexOf(value)] ?? never);
    if (row.kind === "yesno" && typeof value === "boolean") return plainly(value ? row.yes : row.no);
    return null;
  }
  other(expr) {
    return truthOf(this.subject(expr), this.solver, this.wide);
  }
  /** An expression as something that reads rows. */
  subject(expr) {
    return new Subject(this.model, look(expr), compile(expr), (slot) => this.lookOf(slot), (slot) => this.fixed(slot), this.rowsRead(expr));
  }
  /** The truth of an expression that is not in the document. */
  ofExpr(expr) {
    return this.truth(expr);
  }
  rowsRead(expr, seen = /* @__PURE__ */ new Set(), found = /* @__PURE__ */ new Set()) {
    for (const slot of namesIn(expr).values()) {
      if (seen.has(slot)) continue;
      seen.add(slot);
      const row = this.rowOfSlot.get(slot);
      if (row) found.add(row);
      const entry = this.model.entries[slot];
      if (entry?.kind === "calculation") this.rowsRead(entry.formula.expr, seen, found);
    }
    return [...found];
  }
  lookOf(slot) {
    const known2 = this.looks.get(slot);
    if (known2) return known2;
    const entry = this.model.entries[slot];
    const made2 = look(entry.formula.expr);
    this.looks.set(slot, made2);
    return made2;
  }
  fixed(slot) {
    const id2 = this.model.entries[slot]?.id ?? "";
    return id2 === "today" ? Day.read(this.context.date) : this.context.values[id2] ?? null;
  }
  entry(expr) {
    return expr.kind === "name" ? this.model.entries[expr.slot ?? -1] : void 0;
  }
  row(expr) {
    return expr.kind === "name" ? this.rowOfSlot.get(expr.slot ?? -1) : void 0;
  }
};
var keyOf = (expr) => JSON.stringify(expr, (name2, value) => name2 === "at" ? void 0 : value);

// src/core/engine/encoding.ts
var Encoding = class {
  /** With `apart`, each rule and shape is in force only under a literal of its own, so that causes can be told. */
  constructor(model, context, apart = false) {
    this.model = model;
    this.context = context;
    this.apart = apart;
    const { solver } = this;
    const rowOfSlot = /* @__PURE__ */ new Map();
    const existing = /* @__PURE__ */ new Map();
    model.entries.forEach((entry, slot) => {
      const row = makeRow(entry, slot, solver, existing);
      if (row) rowOfSlot.set(slot, row);
    });
    this.rows = [...rowOfSlot.values()];
    for (const row of this.rows) this.byId.set(row.id, row);
    this.conditions = new Conditions(model, rowOfSlot, context, solver);
    for (const row of this.rows) this.shape(row);
    for (const rule2 of model.rules) {
      if (rule2.severity === "error" && rule2.rule.kind !== "say" && this.inForce(rule2.rule)) this.restrict(rule2);
    }
  }
  model;
  context;
  apart;
  solver = new Solver();
  /** In the order of the model. */
  rows;
  conditions;
  /** Parts by the literal that puts them in force; empty where all are in force for good. */
  parts = /* @__PURE__ */ new Map();
  byId = /* @__PURE__ */ new Map();
  guards = /* @__PURE__ */ new Map();
  keys = /* @__PURE__ */ new Map();
  lastKey = 0;
  cells = /* @__PURE__ */ new Map();
  /** Whether a rule counts on the context's date and in its region, or what else the rule's place is. */
  inForce({ from, until, where = {} }) {
    const { date: date2, values } = this.context;
    return (!from || from <= date2) && (!until || date2 <= until) && Object.entries(where).every(([input, allowed]) => allowed.includes(values[input] ?? ""));
  }
  /**
   * Where the model's conditions cut a number, as it was when first asked: between two of these cuts no clause tells codes apart.
   * Cuts that decisions and searches make later are not among them.
   */
  cutsOf(number4) {
    const known2 = this.cells.get(number4) ?? [...this.solver.numbers.cuts(number4)];
    this.cells.set(number4, known2);
    return known2;
  }
  /** A key for a wish; the same for the same name. */
  newKey(name2) {
    const known2 = name2 === void 0 ? void 0 : this.keys.get(name2);
    if (known2 !== void 0) return known2;
    if (name2 !== void 0) this.keys.set(name2, this.lastKey + 1);
    return ++this.lastKey;
  }
  row(id2) {
    return this.byId.get(id2);
  }
  /**
   * Of each choice what is usual or stands first, of several nothing but what is usual: most models have a build near it, and a
   * search that begins there meets a tenth of the conflicts.
   */
  get preferred() {
    return this.rows.flatMap((row) => {
      const entry = this.model.entries[row.slot];
      const usual = entry?.kind === "feature" ? new Set(entry.feature.usual) : /* @__PURE__ */ new Set();
      switch (row.kind) {
        case "choice":
          return [row.latent[Math.max(0, row.ids.findIndex((id2) => usual.has(id2)))]];
        case "many":
          return row.latent.map((lit, index) => usual.has(row.ids[index]) ? lit : not(lit));
        case "yesno":
          return [not(row.latent)];
        case "number":
          return [];
      }
    });
  }
  /** What a decision fixes; null where the model has no such value. */
  decided(on, value) {
    const [row, option] = this.place(on);
    return row ? decided2(row, option, value, this.solver) : null;
  }
  /** What must hold for a value to be there. */
  wanted(on, value) {
    const [row, option] = this.place(on);
    return row ? wanted(row, option, value, this.solver) : null;
  }
  /** The rule's condition, and its being broken, as literals; whether or not the rule is in force. */
  meaning({ rule: rule2, when, must, all: all2, rows }) {
    const { conditions } = this;
    const premise = when ? conditions.of(when).yes : always;
    const yes2 = (list2) => conditions.all(list2.map((each) => conditions.of(each).yes));
    if (all2) return { premise, broken: yes2(all2) };
    if (rows && rule2.kind === "table") {
      const listed = conditions.any(rows.map(yes2));
      return { premise, broken: rule2.listed === "forbidden" ? listed : not(listed) };
    }
    return { premise, broken: conditions.all([premise, not(yes2(must))]) };
  }
  place(on) {
    const [id2 = "", option] = on.split(".");
    return [this.byId.get(id2), option];
  }
  /** The literals that take a part out of force again; none where parts are not told apart. */
  unless(key, part) {
    if (!this.apart) return [];
    const guard = this.guards.get(key) ?? this.solver.add();
    this.guards.set(key, guard);
    this.parts.set(guard, part);
    return [not(guard)];
  }
  shape(row) {
    const { solver } = this;
    const entry = this.model.entries[row.slot];
    if (row.kind === "many" && entry?.kind === "feature") {
      const { least: least2, most } = entry.feature;
      const count = row.latent.length;
      if (least2 > 0 || most < count) {
        const unless2 = this.unless(`shape:${row.id}`, { kind: "shape", row: row.id });
        const guard = unless2.length === 0 ? row.shown : this.conditions.all([row.shown, not(unless2[0])]);
        if (most < count) solver.addAtMost(row.latent, most, guard);
        if (least2 === 1) solver.addClause([not(guard), ...row.latent]);
        else if (least2 > 1) solver.addAtMost(row.latent.map(not), count - least2, guard);
      }
    }
    if (row.shown === always || !entry || entry.kind === "context" || entry.kind === "calculation" || !entry.shownWhen) return;
    const place = entry.placeWhen ? this.conditions.of(entry.placeWhen).yes : always;
    if (place !== always) solver.addClause([not(row.shown), place]);
    const { shownBy: rule2 } = entry;
    if (!rule2 || !this.inForce(rule2)) {
      solver.addClause([row.shown, not(place)]);
      return;
    }
    const unless = this.unless(`rule:${rule2.id}`, { kind: "rule", rule: rule2 });
    const { yes: yes2 } = this.conditions.of(entry.shownWhen);
    solver.addClause([...unless, not(row.shown), yes2]);
    solver.addClause([...unless, row.shown, not(yes2)]);
  }
  restrict({ rule: rule2, when, must, all: all2, rows }) {
    const { conditions, solver } = this;
    const unless = this.unless(`rule:${rule2.id}`, { kind: "rule", rule: rule2 });
    const given = when ? [...unless, not(conditions.of(when).yes)] : unless;
    for (const each of must) solver.addClause([...given, conditions.of(each).yes]);
    if (all2) solver.addClause([...given, ...all2.map((each) => not(conditions.of(each).yes))]);
    if (!rows || rule2.kind !== "table") return;
    const cells = rows.map((row) => row.map((cell) => conditions.of(cell).yes));
    if (rule2.listed === "forbidden") for (const row of cells) solver.addClause([...given, ...row.map(not)]);
    else solver.addClause([...given, ...cells.map((row) => conditions.all(row))]);
  }
};

// src/core/engine/sum.ts
var summand = (subject, weight) => ({ subject, weight: exact(weight) });
var SumTheory = class {
  /** While the guard holds, the sum must be less than the bound, or at most the bound where it is not `strict`. */
  constructor(summands, guard, bound2, strict) {
    this.summands = summands;
    this.guard = guard;
    this.bound = bound2;
    this.strict = strict;
    this.rows = [...new Set(summands.flatMap((each) => each.subject.rows))];
    const byChoice = /* @__PURE__ */ new Map();
    const others = [];
    for (const each of summands) {
      const [row, ...more] = each.subject.rows;
      if (row && more.length === 0 && (row.kind === "choice" || row.kind === "yesno")) byChoice.set(row, [...byChoice.get(row) ?? [], each]);
      else others.push(new FormulaShare(each));
    }
    this.tables = [...byChoice].map(([row, list2]) => new TableShare(row, list2));
    this.shares = [...this.tables, ...others];
    this.numbers = this.rows.flatMap((row) => row.kind === "number" ? [row.number] : []);
    this.lits = [guard, ...this.rows.flatMap((row) => [row.shown, ...choicesOf(row)])].filter((lit) => lit !== always && lit !== never);
  }
  summands;
  guard;
  bound;
  strict;
  lits;
  numbers;
  rows;
  shares;
  tables;
  exactIn(witness) {
    const values = new Map(this.rows.map((row) => [row.slot, valueIn(row, witness)]));
    return this.summands.reduce((sum, { subject, weight }) => {
      const value = subject.exact((slot) => values.get(slot) ?? null);
      return value instanceof Exact ? sum.plus(value.times(weight)) : sum;
    }, zero);
  }
  /** A number that the sum cannot come below by what is settled. */
  lowest(settled) {
    return this.shares.reduce((sum, share) => sum + share.low(settled), 0);
  }
  /** Of each choice the literal that keeps the sum lowest; choices where it matters most come first. */
  preferences() {
    return [...this.tables].sort((a, b) => b.spread - a.spread).map((table) => table.cheapest);
  }
  propagate(clauses) {
    const { bound: bound2, guard, shares } = this;
    if (bound2 === null || clauses.value(guard) <= 0) return;
    const lows = shares.map((share) => share.low(clauses));
    const low = lows.reduce((sum, each) => sum + each, 0);
    const limit = bound2.toNumber() + 1e-9 * (1 + Math.abs(bound2.toNumber()));
    if (low > limit) {
      clauses.imply([not(guard), ...this.because(clauses, lows, low - limit).map(not)]);
      return;
    }
    const evidence = this.rows.map((row) => evidenceOf(row, clauses));
    const sights = new Map(this.rows.map((row, index) => [row.slot, sightOf(row, evidence[index])]));
    if (low > limit - 1e-6 * (1 + Math.abs(limit)) && this.rows.every((row) => sights.get(row.slot)?.value !== void 0) && this.breaks(sights, bound2)) {
      clauses.imply([not(guard), ...evidence.flat().map((each) => not(each.lit))]);
      return;
    }
    for (const table of this.tables) {
      const own = table.low(clauses);
      for (let at = 0; at < table.lits.length; at++) {
        const lit = table.lits[at];
        const excess = low - own + table.costs[at] - limit;
        if (excess <= 0 || clauses.value(lit) !== 0) continue;
        if (!clauses.imply([not(lit), not(guard), ...this.because(clauses, lows, excess, table).map(not)])) return;
      }
    }
  }
  /** Settled literals by which the sum passes the bound; shares that add little are left out as long as the excess bears it. */
  because(settled, lows, excess, except) {
    let left = excess;
    const raised = this.shares.map((share, index) => ({ share, raise: lows[index] - share.least })).filter(({ share, raise }) => raise !== 0 && share !== except);
    raised.sort((a, b) => a.raise - b.raise);
    const found = /* @__PURE__ */ new Set();
    for (const { share, raise } of raised) {
      if (raise < left) left -= raise;
      else for (const lit of share.because(settled)) found.add(lit);
    }
    return [...found];
  }
  check(overlay) {
    if (this.bound === null || !overlay.holds(this.guard)) return -1;
    const sum = this.exactIn(overlay);
    if (this.strict ? sum.lt(this.bound) : sum.lte(this.bound)) return -1;
    for (const row of this.rows) {
      const lits = [row.shown, ...choicesOf(row), ...row.kind === "number" ? [] : row.kind === "yesno" ? [row.latent] : row.latent];
      const open2 = lits.find((lit) => overlay.value(lit) === 0 && overlay.holds(lit)) ?? lits.find((lit) => overlay.value(lit) === 0);
      if (open2 !== void 0) return overlay.holds(open2) ? open2 : not(open2);
    }
    const half = halve(this.rows, overlay);
    if (half >= 0) return half;
    throw new Error("a sum over its bound with nothing open");
  }
  breaks(sights, bound2) {
    const sum = this.summands.reduce((all2, { subject, weight }) => {
      const value = subject.exact((slot) => sights.get(slot)?.value ?? null);
      return value instanceof Exact ? all2.plus(value.times(weight)) : all2;
    }, zero);
    return this.strict ? sum.gte(bound2) : sum.gt(bound2);
  }
};
var TableShare = class {
  rows;
  lits;
  costs;
  least;
  constructor(row, summands) {
    this.rows = [row];
    this.lits = [...choicesOf(row), ...row.shown === always ? [] : [not(row.shown)]];
    this.costs = this.lits.map((lit) => summands.reduce((sum, each) => sum + lowOf(each, /* @__PURE__ */ new Map([[row.slot, sightOf(row, [{ lit }])]])), 0));
    this.least = Math.min(...this.costs);
  }
  get spread() {
    return Math.max(...this.costs) - this.least;
  }
  get cheapest() {
    return this.lits[this.costs.indexOf(this.least)];
  }
  low(settled) {
    let low = Infinity;
    for (let at = 0; at < this.lits.length; at++) {
      const value = settled.value(this.lits[at]);
      if (value > 0) return this.costs[at];
      if (value === 0) low = Math.min(low, this.costs[at]);
    }
    return low;
  }
  because(settled) {
    const one = this.lits.find((lit) => settled.value(lit) > 0);
    if (one !== void 0) return [one];
    const low = this.low(settled);
    return this.lits.flatMap((lit, at) => this.costs[at] < low ? [not(lit)] : []);
  }
};
var FormulaShare = class {
  constructor(summand2) {
    this.summand = summand2;
    this.rows = summand2.subject.rows;
    this.least = lowOf(summand2, new Map(this.rows.map((row) => [row.slot, sightOf(row, [])])));
  }
  summand;
  rows;
  least;
  last = { key: "-", low: 0 };
  low(settled) {
    const evidence = this.rows.map((row) => evidenceOf(row, settled));
    const key = evidence.map((list2) => list2.map((each) => each.lit).join()).join(";");
    if (key !== this.last.key) this.last = { key, low: lowOf(this.summand, new Map(this.rows.map((row, index) => [row.slot, sightOf(row, evidence[index])]))) };
    return this.last.low;
  }
  because(settled) {
    const low = this.low(settled);
    const sights = new Map(this.rows.map((row) => [row.slot, sightOf(row, evidenceOf(row, settled))]));
    return this.rows.flatMap((row) => {
      const before = sights.get(row.slot);
      sights.set(row.slot, sightOf(row, []));
      if (lowOf(this.summand, sights) >= low) return [];
      sights.set(row.slot, before);
      return before.evidence.map((each) => each.lit);
    });
  }
};
function lowOf({ subject, weight }, sights) {
  const { outlook } = subject.seen(sights);
  const factor = weight.toNumber();
  const ends = outlook.low <= outlook.high ? [outlook.low * factor, outlook.high * factor] : [];
  const low = Math.min(...ends, ...outlook.none || ends.length === 0 ? [0] : []);
  return Number.isNaN(low) ? -Infinity : low;
}
var choicesOf = (row) => row.kind === "number" ? [] : row.kind === "yesno" ? [row.yes, row.no] : row.kind === "many" ? row.taken : [...row.taken, ...row.none === never ? [] : [row.none]];

// src/core/engine/variables.ts
function variablesOf(encoding) {
  const variables = [];
  const wish = (lits) => ({ key: encoding.newKey(), lits: lits.filter((lit) => lit !== always) });
  for (const row of encoding.rows) {
    const code = (value, lits, others) => ({ value, wish: wish(lits), otherwise: wish([row.shown, ...others]) });
    const shown = wish([row.shown]);
    const hidden = row.shown === always ? null : wish([not(row.shown)]);
    const add = (on, codes) => {
      variables.push({ index: variables.length, on, row, codes, shown, hidden });
    };
    switch (row.kind) {
      case "choice": {
        const options2 = row.ids.map((id2, index) => code(id2, [row.taken[index]], [not(row.taken[index])]));
        add(row.id, row.none === never ? options2 : [...options2, code(null, [row.none], [not(row.none)])]);
        break;
      }
      case "many":
        row.ids.forEach((id2, index) => {
          const lit = row.taken[index];
          add(`${row.id}.${id2}`, [code(true, [lit], [not(lit)]), code(false, [row.shown, not(lit)], [lit])]);
        });
        break;
      case "yesno":
        add(row.id, [code(true, [row.yes], [not(row.yes)]), code(false, [row.no], [not(row.no)])]);
        break;
      case "number":
        add(row.id, []);
    }
  }
  return variables;
}

// src/core/engine/best.ts
var slice = 500;
function bestBuild(model, context, input, question, options2 = {}) {
  const encoding = new Encoding(model, context);
  const { solver } = encoding;
  const sums = [];
  for (const terms of [question.minimize, ...(question.bounds ?? []).map((bound2) => bound2.of)]) {
    const made2 = [];
    for (const { formula, weight } of terms) {
      const compiled = compileFormula(formula, model.scope, { is: "number", unit: "any" });
      if (!compiled.ok) return { is: "unreadable", formula };
      made2.push(summand(encoding.conditions.subject(compiled.formula.expr), weight));
    }
    sums.push(made2);
  }
  const guard = solver.add();
  const [goal = [], ...limited] = sums;
  const theory = new SumTheory(goal, guard, null, true);
  limited.forEach((terms, index) => {
    const { least: least2, most } = question.bounds?.[index] ?? {};
    if (most !== void 0) solver.addTheory(new SumTheory(terms, always, exact(most), false));
    const negated2 = terms.map(({ subject, weight }) => ({ subject, weight: weight.negated() }));
    if (least2 !== void 0) solver.addTheory(new SumTheory(negated2, always, exact(least2).negated(), false));
  });
  solver.addTheory(theory);
  solver.stop = options2.stop;
  const variables = variablesOf(encoding);
  const byOn = new Map(variables.map((variable) => [variable.on, variable]));
  const decided3 = assumedOf(input, encoding, byOn);
  const assume = litsOf(decided3);
  const wishes = theory.preferences();
  const floor = solver.consider(assume, (settled) => theory.lowest(settled)) ?? -Infinity;
  let best = null;
  let left = options2.budget ?? Infinity;
  const gapOf = (value) => Number.isFinite(floor) ? Exact.max(value.minus(floor.toFixed(9)), 0).toString() : "unknown";
  const finish = (proven) => best === null ? { is: proven ? "none" : "stopped" } : { is: "found", decisions: decisionsOf(input, variables, best.witness), value: best.value.toString(), proven, gap: proven ? "0" : gapOf(best.value) };
  for (; ; ) {
    if (options2.stop?.() || left <= 0) return finish(false);
    const before = solver.conflicts;
    const answer = solver.ask({ assume: best ? [...assume, guard] : [...assume, not(guard)], base: best?.witness.without(guard) ?? null, wishes, budget: Math.min(slice, left) });
    left -= solver.conflicts - before;
    if (answer.is === "no") return finish(true);
    if (answer.is === "stopped") continue;
    const witness = answer.witness();
    const value = theory.exactIn({ holds: (lit) => witness.holds(lit), code: (number4) => witness.codes[number4] });
    best = { witness, value };
    theory.bound = value;
    solver.renew(theory);
    options2.progress?.({ value: value.toString(), gap: gapOf(value) });
  }
}
function decisionsOf(input, variables, build) {
  const own = new Map(input.decisions.map((decision) => [decision.on, decision]));
  const more = variables.flatMap((variable) => {
    const { on, row, codes } = variable;
    if (own.has(on) || !holds2(build, row.shown)) return [];
    if (row.kind === "number") {
      const value = plainAt(row.entry.grid, build.codes[row.number]);
      return value !== null && row.entry.kind === "length" ? [] : [{ on, value }];
    }
    const code = codes.find((each) => build.meets(each.wish.lits));
    return code ? [{ on, value: code.value }] : [];
  });
  return [...input.decisions, ...more];
}
var holds2 = (build, lit) => lit === always || lit !== never && build.holds(lit);

// src/core/engine/reach.ts
var OutOfBudget = class extends Error {
};
var Reach = class {
  constructor(solver, preferred) {
    this.solver = solver;
    this.preferred = preferred;
  }
  solver;
  preferred;
  base = null;
  assume = [];
  known = [];
  /** How often a literal is assumed. */
  assumed = new Uint16Array(0);
  /** Move at which a variable's neighbourhood last changed. */
  touched = new Int32Array(0);
  moves = 0;
  /** Wishes to be told of when they may be lost, by the variables on which their witness hangs. */
  watchers = [];
  watched = /* @__PURE__ */ new Map();
  get assumptions() {
    return this.assume;
  }
  assumes(lit) {
    return this.assumed[lit] > 0;
  }
  /** Takes other assumptions. Null where they can stand together, else those that cannot; then the old ones stay. */
  move(assume) {
    const refused = this.rest(assume);
    if (refused) return refused;
    for (const lit of this.assume) this.assumed[lit]--;
    this.assume = [];
    this.add(assume);
    return null;
  }
  /** Takes further assumptions. Null where they can stand beside the others, else those that cannot; then nothing is taken. */
  extend(lits) {
    const refused = this.base?.meets(lits) ? null : this.rest([...this.assume, ...lits]);
    if (!refused) this.add(lits);
    return refused;
  }
  /** Gives up the assumptions taken last. */
  retract(count) {
    for (const lit of this.assume.splice(this.assume.length - count)) this.assumed[lit]--;
  }
  /** Starts from a witness found elsewhere, where there is none yet. */
  startFrom(witness) {
    this.base ??= witness;
  }
  add(lits) {
    this.fit();
    for (const lit of lits) {
      this.assume.push(lit);
      this.assumed[lit]++;
      this.doubt(variableOf(lit));
    }
  }
  /** Makes the base meet assumptions. */
  rest(assume) {
    if (this.base?.meets(assume)) return null;
    const answer = this.solver.ask({ assume, base: this.base, wishes: this.base ? [] : this.preferred });
    if (answer.is === "stopped") throw new OutOfBudget();
    if (answer.is === "no") return answer.core;
    this.fit();
    this.moves++;
    if (this.base) {
      this.solver.neighbours(answer.changed, (variable) => {
        if (this.touched[variable] === this.moves) return;
        this.touched[variable] = this.moves;
        this.doubt(variable);
      });
    }
    this.base = answer.witness();
    return null;
  }
  fit() {
    const { variables } = this.solver;
    if (this.touched.length >= variables) return;
    this.touched = grown(this.touched, new Int32Array(2 * variables));
    this.assumed = grown(this.assumed, new Uint16Array(4 * variables));
  }
  /** Whether a wish can be had beside the assumptions; with `lifted`, as if those were not made. */
  can(wish, lifted) {
    const { base } = this;
    if (!base) return false;
    if (base.meets(wish.lits)) return true;
    const known2 = this.known[wish.key];
    if (known2 && this.stillHolds(known2, wish, lifted)) return known2.can;
    const kept = lifted ? this.assume.filter((lit) => !lifted.includes(lit)) : this.assume;
    const answer = this.solver.ask({ assume: [...kept, ...wish.lits], base, met: kept.length });
    if (answer.is === "stopped") throw new OutOfBudget();
    this.known[wish.key] = answer.is === "yes" ? { can: true, changed: answer.changed, seen: this.moves } : { can: false, core: answer.core.filter((lit) => !wish.lits.includes(lit)) };
    this.hang(wish);
    return answer.is === "yes";
  }
  /** The assumptions that refuse a wish, as last found. */
  coreOf({ key }) {
    const known2 = this.known[key];
    return known2 && !known2.can ? known2.core : null;
  }
  stillHolds(known2, wish, lifted) {
    const { assumed, touched } = this;
    if (!known2.can) {
      for (const lit of known2.core) if (assumed[lit] === 0 || lifted?.includes(lit) === true) return false;
      return true;
    }
    const { changed } = known2;
    let near = false;
    for (const lit of changed) {
      if (assumed[not(lit)] > 0 && lifted?.includes(not(lit)) !== true) return false;
      if (touched[variableOf(lit)] > known2.seen) near = true;
    }
    if (!near) {
      known2.seen = this.moves;
      return true;
    }
    const base = this.base;
    const left = changed.filter((lit) => !base.holds(lit));
    const met = wish.lits.every((lit) => base.holds(lit) || left.includes(lit));
    if (!met || !this.solver.stands(base, left)) return false;
    this.known[wish.key] = { can: true, changed: left, seen: this.moves };
    this.hang(wish);
    return true;
  }
  // ---- keeping wishes -------------------------------------------------------------------------------------------------
  /** Keeps an eye on a wish that can be had now: whenever it may have been lost it is put among the doubtful. */
  watch(wish, doubtful) {
    const watch = this.watched.get(wish.key);
    if (watch?.doubtful === doubtful) return;
    this.unwatch(wish);
    this.watched.set(wish.key, { wish, doubtful, on: [] });
    this.hang(wish);
  }
  unwatch({ key }) {
    const watch = this.watched.get(key);
    if (!watch) return;
    for (const variable of watch.on) this.watchers[variable]?.delete(watch);
    this.watched.delete(key);
  }
  /** Hangs a watch on what its wish's witness depends on. */
  hang({ key, lits }) {
    const watch = this.watched.get(key);
    if (!watch) return;
    for (const variable of watch.on) this.watchers[variable]?.delete(watch);
    const known2 = this.known[key];
    watch.on = known2?.can ? [...lits, ...known2.changed].map(variableOf) : lits.map(variableOf);
    for (const variable of watch.on) (this.watchers[variable] ??= /* @__PURE__ */ new Set()).add(watch);
  }
  doubt(variable) {
    const watches = this.watchers[variable];
    if (watches) for (const watch of watches) watch.doubtful.add(watch.wish);
  }
};
function grown(old, made2) {
  made2.set(old);
  return made2;
}

// src/core/engine/explain.ts
var enough = 4;
var mostChanges = 5;
var Explainer = class {
  constructor(maker) {
    this.maker = maker;
  }
  maker;
  /** The model with each part under a literal of its own; made when first something is asked why. */
  apart;
  /** A build of it with all parts in force, to search from. */
  near = null;
  limits = {};
  get parts() {
    if (this.apart) return this.apart;
    this.apart = new Encoding(this.maker.encoding.model, this.maker.encoding.context, true);
    this.limit(this.apart);
    const answer = this.apart.solver.ask({ assume: [...this.apart.parts.keys()], wishes: this.apart.preferred });
    if (answer.is === "yes") this.near = answer.witness();
    return this.apart;
  }
  /** A smallest set of decisions and parts that together forbid the target; empty where it is possible. */
  reason(input, target) {
    const decisions = this.maker.assumed(input).filter((each) => each.decision.on !== target.on);
    return this.conflict(decisions, target);
  }
  /** A second smallest set, with nothing in common with the first or, where there is none, without one part of it; empty where there is no other. */
  secondReason(input, target) {
    const decisions = this.maker.assumed(input).filter((each) => each.decision.on !== target.on);
    const wish = this.parts.wanted(target.on, target.value);
    if (!wish) return [];
    const pieces = this.pieces(decisions);
    const first2 = this.smallestOf(pieces, decisions.length, wish, both3);
    if (!first2) return [];
    const others = [pieces.filter((each) => !first2.includes(each)), ...first2.map((one) => pieces.filter((each) => each !== one))];
    for (const some of others) {
      const second = this.smallestOf(some, some.filter((each) => "decision" in each).length, wish, both3);
      if (second) return second.map(causeOf);
    }
    return [];
  }
  /** Lets questions about causes take what a whole question may. */
  allow({ budget = Infinity, stop }) {
    this.limits = { budget, ...stop ? { stop } : {} };
    if (this.apart) this.limit(this.apart);
  }
  limit({ solver }) {
    solver.allowance = this.limits.budget ?? Infinity;
    solver.stop = this.limits.stop;
  }
  /** The causes of a clash of one decision with others: no decision among them can be left out, whatever the rules. */
  clash(kept, last) {
    return this.conflict([...kept, last], void 0, ["decisions first"]);
  }
  /** A smallest set of decisions and parts that cannot stand together (with the wish); empty where they can. */
  conflict(decisions, target, orders = both3) {
    const wish = target ? this.parts.wanted(target.on, target.value) : [];
    if (!wish) return [];
    return (this.smallestOf(this.pieces(decisions), decisions.length, wish, orders) ?? []).map(causeOf);
  }
  pieces(decisions) {
    const own = decisions.flatMap(({ decision }) => {
      const lits = this.parts.decided(decision.on, decision.value);
      return lits ? [{ decision, lits }] : [];
    });
    return [...own, ...[...this.parts.parts].map(([lit, part]) => ({ part, lits: [lit] }))];
  }
  smallestOf(pieces, decisions, wish, orders) {
    const guilty = this.core(pieces, wish);
    if (!guilty) return null;
    const alone = decisions > 0 ? this.core(pieces.slice(decisions), wish) : guilty;
    const found = alone ? [this.smallest(alone, wish, "rules first")] : orders.map((order2) => this.smallest(order2 === "rules first" ? guilty : pieces.filter((piece2) => "part" in piece2 || guilty.includes(piece2)), wish, order2));
    const rules = (some) => some.filter((piece2) => "part" in piece2).length;
    found.sort((a, b) => a.length - b.length || rules(a) - rules(b));
    return found[0];
  }
  /** Leaves out pieces one by one as long as the rest still conflicts; each refusal narrows the rest to what it used. */
  smallest(guilty, wish, order2) {
    let left = [...guilty];
    const isRule = (piece2) => "part" in piece2;
    for (const rules of order2 === "rules first" ? [true, false] : [false, true]) {
      if (rules && order2 === "decisions first") left = this.core(left, wish) ?? left;
      for (const piece2 of guilty.filter((each) => isRule(each) === rules)) {
        if (!left.includes(piece2)) continue;
        const fewer = this.fewer(left.filter((each) => each !== piece2), wish);
        if (fewer === "unknown") return left;
        if (fewer) left = left.filter((each) => each !== piece2 && (fewer.includes(each) || isRule(each) !== rules));
      }
    }
    return left;
  }
  /** As `core`; where the budget ends, what is known already has to do: a cause, if not a smallest one. */
  fewer(pieces, wish) {
    try {
      return this.core(pieces, wish);
    } catch (thrown) {
      if (thrown instanceof OutOfBudget) return "unknown";
      throw thrown;
    }
  }
  /** Pieces that cannot stand together with the wish; null where all can. */
  core(pieces, wish) {
    const parts = pieces.filter((piece2) => "part" in piece2);
    const assume = [...parts, ...pieces.filter((piece2) => "decision" in piece2)].flatMap((piece2) => piece2.lits);
    const answer = this.parts.solver.ask({ assume: [...assume, ...wish], base: this.near });
    if (answer.is === "stopped") throw new OutOfBudget();
    if (answer.is === "yes") {
      if (parts.length === this.parts.parts.size) this.near = answer.witness();
      return null;
    }
    const core = new Set(answer.core);
    return pieces.filter((piece2) => piece2.lits.some((lit) => core.has(lit)));
  }
  /** Smallest sets of decisions to change, each with the state it leads to. */
  waysOut(input, target) {
    const wish = target && this.maker.encoding.wanted(target.on, target.value);
    if (target && !wish) return [];
    const kept = (target ? input.decisions.filter((decision) => decision.on !== target.on) : input.decisions).slice();
    const decided3 = assumedOf({ ...input, decisions: kept }, this.maker.encoding, this.maker.byOn).filter((each) => each.decision.on !== target?.on);
    const found = [];
    for (const change of this.changes(decided3, wish ?? [], enough)) {
      if (change.length === 0) return [];
      found.push(...this.ways(input, kept, change, decided3.filter((each) => !change.includes(each)), target, wish ?? []));
    }
    return found.sort((a, b) => a.changes.length - b.changes.length).slice(0, 2 * enough);
  }
  /** The size of the smallest set of decisions whose change makes the target possible. */
  changesNeeded(input, target) {
    const wish = this.maker.encoding.wanted(target.on, target.value);
    if (!wish) return null;
    const [first2] = this.changes(this.maker.assumed(input).filter((each) => each.decision.on !== target.on), wish, 1);
    return first2 ? first2.length : null;
  }
  /**
   * Sets of a person's decisions to give up so that the wish fits, smallest first, none within another.
   * Each set must hit every cause; causes are found as sets fail (implicit hitting sets).
   */
  changes(decided3, wish, wanted2) {
    const mine = decided3.filter((each) => each.source === "yours");
    const found = [];
    const causes = [];
    let hopeless = false;
    const visit = (change, size4) => {
      if (hopeless || found.length >= wanted2 || found.some((smaller) => smaller.every((each) => change.includes(each)))) return;
      let cause = causes.find((each) => !each.some((one) => change.includes(one)));
      if (!cause) {
        const core = this.refusal(decided3.filter((each) => !change.includes(each)), wish);
        if (!core) {
          found.push(change);
          return;
        }
        cause = core.filter((each) => mine.includes(each));
        if (cause.length === 0) {
          hopeless = true;
          return;
        }
        causes.push(cause);
      }
      if (change.length < size4) for (const each of cause) visit([...change, each], size4);
    };
    for (let size4 = 0; size4 <= Math.min(mostChanges, mine.length) && found.length < wanted2 && !hopeless; size4++) visit([], size4);
    return found;
  }
  /** Decisions that cannot stand together with the wish, as few as a second look finds; null where they can. */
  refusal(decided3, wish) {
    const { encoding, reach } = this.maker;
    const answer = encoding.solver.ask({ assume: [...litsOf(decided3), ...wish], base: reach.base });
    if (answer.is === "stopped") throw new OutOfBudget();
    if (answer.is === "yes") return null;
    const core = new Set(answer.core);
    return decided3.filter((each) => each.lits.some((lit) => core.has(lit)));
  }
  /** For one decision to change: each other value it could have. For several: what the rules make of them. */
  ways(input, kept, change, rest, target, wish) {
    const keys = new Set(change.map((each) => each.decision.on));
    const base = kept.filter((decision) => !keys.has(decision.on));
    const wished = target ? [{ on: target.on, value: target.value }] : [];
    const to = (values) => {
      const changed = change.flatMap((each, index) => values[index] === void 0 ? [] : [{ on: each.decision.on, value: values[index] }]);
      const decisions = [...base, ...changed, ...wished];
      return {
        changes: change.map((each, index) => ({ on: each.decision.on, from: each.decision.value, to: values[index] })),
        decisions,
        state: this.maker.state({ ...input, decisions })
      };
    };
    const [only] = change;
    if (change.length === 1 && only) {
      const values = this.otherValues(only, rest, wish);
      return values.length > 0 ? values.map((value) => to([value])) : [to([void 0])];
    }
    return [to(change.map(() => void 0))];
  }
  /** Values that one decision could have instead: every choice, or the nearest numbers below and above. */
  otherValues({ variable, decision }, rest, wish) {
    const { encoding, reach } = this.maker;
    const { row } = variable;
    const ask = (lits) => encoding.solver.ask({ assume: [...litsOf(rest), ...wish, ...lits.filter((lit) => lit !== always)], base: reach.base });
    if (row.kind !== "number") {
      const fitting = variable.codes.filter((code) => code.value !== decision.value && ask(code.wish.lits).is === "yes");
      return fitting.slice(0, enough).map((code) => code.value);
    }
    const own = codeOf(row.entry.grid, decision.value);
    const fits2 = (from, to) => {
      const answer = from > to ? null : ask([row.shown, ...between(row.number, from, to, encoding.solver)]);
      return answer?.is === "yes" ? answer.witness().codes[row.number] : null;
    };
    const nearest = [greatest(0, own - 1, fits2), least(own + 1, row.entry.grid.count - 1, fits2)];
    return nearest.flatMap((code) => code === null || code > 0 && row.entry.kind === "length" ? [] : [plainAt(row.entry.grid, code)]);
  }
};
function greatest(from, to, fits2) {
  let best = fits2(from, to);
  let end = to;
  while (best !== null && best < end) {
    const middle = best + end + 1 >> 1;
    const higher = fits2(middle, end);
    if (higher === null) end = middle - 1;
    else best = higher;
  }
  return best;
}
function least(from, to, fits2) {
  const mirrored = greatest(-to, -from, (a, b) => {
    const code = fits2(-b, -a);
    return code === null ? null : -code;
  });
  return mirrored === null ? null : -mirrored;
}
var both3 = ["rules first", "decisions first"];
var causeOf = (piece2) => "decision" in piece2 ? { kind: "decision", decision: piece2.decision } : piece2.part.kind === "rule" ? { kind: "rule", rule: piece2.part.rule.id, reason: piece2.part.rule.reason, ...piece2.part.rule.help === void 0 ? {} : { help: piece2.part.rule.help } } : { kind: "shape", row: piece2.part.row };

// src/core/engine/ranges.ts
function rangesOf(row, encoding, reach, lifted, unsure = outOfBudget) {
  const { conditions } = encoding;
  const wide = conditions.wide.filter((theory) => theory.numbers.includes(row.number));
  const found = [];
  const add = (from2, to) => {
    const last2 = found[found.length - 1];
    if (last2 && last2[1] === from2 - 1) found[found.length - 1] = [last2[0], to];
    else found.push([from2, to]);
  };
  const last = row.entry.grid.count - 1;
  if (wide.length > 0) {
    for (const range of steadyParts(row, [0, last], { wide, encoding, reach, lifted, unsure })) add(...range);
    return found;
  }
  let from = 0;
  for (const to of [...encoding.cutsOf(row.number), last]) {
    if (possible(() => reach.can(wishFor(row, from, to, encoding), lifted), unsure)) add(from, to);
    from = to + 1;
  }
  return found;
}
function wishFor(row, from, to, encoding) {
  return { key: encoding.newKey(`${row.id}:${String(from)}:${String(to)}`), lits: [row.shown, ...between(row.number, from, to, encoding.solver)].filter((lit) => lit !== always) };
}
var mostStretches = 60;
var memory = /* @__PURE__ */ new WeakMap();
function stretchesOf(row, reach) {
  const ofReach = memory.get(reach) ?? /* @__PURE__ */ new Map();
  memory.set(reach, ofReach);
  const known2 = ofReach.get(row) ?? [];
  ofReach.set(row, known2);
  return known2;
}
function wishesFor({ number: number4 }, from, to, side, { solver }) {
  const middle = from + to >> 1;
  if (side === "middle") return [solver.atMost(number4, middle), not(solver.atMost(number4, middle - 1))];
  const places = [1, 4, 2].map((share) => share === 1 ? 0 : Math.floor((to - from) / share));
  return places.map((place) => side === "low" ? solver.atMost(number4, from + place) : not(solver.atMost(number4, to - place - 1)));
}
var outOfBudget = () => {
  throw new OutOfBudget();
};
function possible(question, unsure) {
  try {
    return question();
  } catch (thrown) {
    if (!(thrown instanceof OutOfBudget)) throw thrown;
    unsure();
    return false;
  }
}
function steadyParts(row, [from, to], means, towards) {
  if (from > to) return [];
  const { wide, encoding, reach, lifted, unsure } = means;
  const kept = lifted ? reach.assumptions.filter((lit) => !lifted.includes(lit)) : reach.assumptions;
  const rest = (range, side) => steadyParts(row, range, means, side);
  const stretches = stretchesOf(row, reach);
  const known2 = stretches.find((each) => each.from <= to && each.to >= from && ("build" in each ? each.build.meets(kept) : each.core.every((lit) => kept.includes(lit))));
  if (known2) {
    const [low2, high2] = [Math.max(from, known2.from), Math.min(to, known2.to)];
    return [...rest([from, low2 - 1], towards), ..."build" in known2 ? [[low2, high2]] : [], ...rest([high2 + 1, to], towards)];
  }
  const { lits } = wishFor(row, from, to, encoding);
  const answer = encoding.solver.ask({ assume: [...kept, ...lits], base: reach.base, met: kept.length, wishes: towards ? wishesFor(row, from, to, towards, encoding) : [] });
  if (answer.is === "stopped") {
    unsure();
    return [];
  }
  const keep = (stretch) => {
    stretches.unshift(stretch);
    if (stretches.length > mostStretches) stretches.pop();
  };
  if (answer.is === "no") {
    keep({ from, to, core: answer.core.filter((lit) => !lits.includes(lit)) });
    return [];
  }
  const first2 = stretchOf(row, answer.witness(), [from, to], wide, encoding);
  const roomier = first2.to - first2.from < to - from >> 3 ? withRoom(row, first2, [from, to], kept, wide, encoding, reach) : null;
  const { from: low, to: high, build } = roomier && roomier.to - roomier.from > first2.to - first2.from ? roomier : first2;
  keep({ from: low, to: high, build });
  return [...rest([from, low - 1], towards === "high" ? "middle" : "low"), [low, high], ...rest([high + 1, to], towards === "low" ? "middle" : "high")];
}
function stretchOf(row, build, [from, to], wide, encoding) {
  const code = build.codes[row.number];
  const steady = (a, b) => wide.every((theory) => theory.steady(row, a, b, build));
  const low = furthest2(code, standing(row, build, code, from, encoding), (at) => steady(at, code));
  const high = furthest2(code, standing(row, build, code, to, encoding), (at) => steady(low, at));
  return { from: low, to: high, build };
}
function withRoom(row, { build }, piece2, kept, wide, encoding, reach) {
  const { solver } = encoding;
  const base = reach.base;
  const others = [...new Set(wide.flatMap((theory) => theory.numbers))].filter((number4) => number4 !== row.number && base?.codes[number4] !== build.codes[number4]);
  if (!base || others.length === 0) return null;
  const code = build.codes[row.number];
  const wishes = [1, 2, 4, 16, 64, 256].flatMap(
    (share) => others.map((number4) => {
      const [was, is, last] = [base.codes[number4], build.codes[number4], solver.numbers.count(number4) - 1];
      return is > was ? not(solver.atMost(number4, is + Math.ceil((last - is) / share) - 1)) : solver.atMost(number4, is - Math.ceil(is / share));
    })
  );
  const answer = solver.ask({ assume: [...kept, ...wishFor(row, code, code, encoding).lits], base: build, wishes: wishes.filter((lit) => lit !== always && lit !== never) });
  return answer.is === "yes" ? stretchOf(row, answer.witness(), piece2, wide, encoding) : null;
}
function standing({ number: number4 }, build, code, end, { solver }) {
  const [cuts, lits] = [solver.numbers.cuts(number4), solver.numbers.literals(number4)];
  const down = end < code;
  const passed = cuts.flatMap((cut, index) => (down ? cut >= end && cut < code : cut >= code && cut < end) ? [{ to: down ? cut : cut + 1, lit: down ? lits[index] : not(lits[index]) }] : []);
  if (down) passed.reverse();
  const steps = solver.stepsThatStand(build, passed.map(({ lit }) => [lit]));
  if (steps === passed.length) return end;
  const { to } = passed[steps];
  return down ? to + 1 : to - 1;
}
function furthest2(start, end, passes) {
  if (start === end || passes(end)) return end;
  let [good, bad] = [start, end];
  while (Math.abs(bad - good) > 1) {
    const middle = good + bad >> 1;
    if (passes(middle)) good = middle;
    else bad = middle;
  }
  return good;
}
function canDiffer(row, witness, encoding, reach) {
  const code = witness.codes[row.number];
  return [[0, code - 1], [code + 1, row.entry.grid.count - 1]].some(([from, to]) => from <= to && reach.can(wishFor(row, from, to, encoding)));
}

// src/core/engine/layers.ts
var Layers = class {
  constructor(encoding, variables, reach) {
    this.encoding = encoding;
    this.variables = variables;
    this.reach = reach;
    const byOn = new Map(variables.map((variable) => [variable.on, variable]));
    const wish = (...lits) => ({ key: encoding.newKey(), lits: lits.filter((lit) => lit !== always) });
    this.offers = encoding.model.proposals.flatMap((proposal, rank) => {
      if (proposal.rule && !encoding.inForce(proposal.rule)) return [];
      const variable = byOn.get(proposal.on);
      const offered = variable && (isFormula2(proposal.value) ? this.byFormula(proposal.value) : this.offer(variable, proposal.value));
      if (!variable || !offered) return [];
      this.proposed.add(variable);
      const when = proposal.when && encoding.conditions.of(proposal.when).yes;
      return [{ rank, proposal, variable, offered, when: when === void 0 ? null : { holds: wish(when), fails: wish(not(when)) } }];
    });
  }
  encoding;
  variables;
  reach;
  offers;
  proposed = /* @__PURE__ */ new Set();
  made = /* @__PURE__ */ new Map();
  memory = { watched: /* @__PURE__ */ new Set(), doubtful: /* @__PURE__ */ new Set(), doubtfulHidden: /* @__PURE__ */ new Set(), ofHidden: /* @__PURE__ */ new Map(), victims: /* @__PURE__ */ new Map() };
  /** A value that is offered; null where the row has no such value. Made once, so that wishes keep their keys. */
  offer(variable, value) {
    const key = `${variable.on} = ${JSON.stringify(value)}`;
    const known2 = this.made.get(key);
    if (known2 !== void 0) return known2;
    const lits = this.encoding.decided(variable.on, value);
    const wishes = lits?.map((lit, index) => ({ key: this.encoding.newKey(`${key}:${String(index)}`), lits: [variable.row.shown, not(lit)].filter((each) => each !== always) }));
    const offered = lits && wishes ? { value, lits, otherwise: wishes } : null;
    this.made.set(key, offered);
    return offered;
  }
  byFormula(formula) {
    const subject = this.encoding.conditions.subject(formula.expr);
    return { subject, reads: this.variables.filter((variable) => subject.rows.includes(variable.row)) };
  }
  /** `known` are the variables that decisions and firm rules have settled. */
  settle(assume, near, known2) {
    const { reach } = this;
    const sources = new Map(known2);
    reach.startFrom(near);
    if (reach.move(assume)) throw new Error("decisions that were kept do not stand together");
    const asking = new Asking(this.variables.filter((variable) => !known2.has(variable) && !this.proposed.has(variable)), this.memory, this.encoding, reach);
    const given = /* @__PURE__ */ new Map();
    const postponed = this.takeOffers(sources, given, asking);
    const build = reach.base;
    const waits = new Set(asking.any() ? [...postponed].filter((variable) => !sources.has(variable)) : []);
    return { build, sources, given, waits, existence: (variable) => this.existence(variable), single: (variable) => this.single(variable) };
  }
  existence({ hidden, shown }) {
    if (!hidden || !this.reach.can(hidden)) return "shown";
    return this.reach.can(shown) ? "open" : "hidden";
  }
  single(variable) {
    const build = this.reach.base;
    if (variable.row.kind === "number") return !canDiffer(variable.row, build, this.encoding, this.reach);
    const code = variable.codes.find((each) => build.meets(each.wish.lits));
    return code !== void 0 && !this.reach.can(code.otherwise);
  }
  /** What is offered now; "open" while a formula reads something that is not settled, null where it gives no value of the row. */
  offeredNow({ offered, variable }) {
    if (!("subject" in offered)) return offered;
    const settled = offered.reads.every((each) => {
      const existence = this.existence(each);
      return existence === "hidden" || existence === "shown" && this.single(each);
    });
    if (!settled) return "open";
    const build = this.reach.base;
    const values = new Map(offered.subject.rows.map((row) => [row.slot, valueIn(row, { holds: (lit) => lit === always || lit !== never && build.holds(lit), code: (number4) => build.codes[number4] })]));
    const value = plainOf(offered.subject.exact((slot) => values.get(slot) ?? null));
    return value === void 0 ? null : this.offer(variable, value);
  }
  /** Takes offers in their priority, adding to the sources; gives the variables of those that never had their turn. */
  takeOffers(sources, given, asking) {
    const { reach } = this;
    const queue = new Queue(this.offers.filter(({ variable }) => !sources.has(variable)));
    const postponed = /* @__PURE__ */ new Set();
    const applies = ({ when }) => when === null || reach.can(when.holds);
    const certain = (offer) => {
      const decided3 = offer.when === null || !reach.can(offer.when.fails) || !reach.can(offer.when.holds);
      return decided3 && (!applies(offer) || this.offeredNow(offer) !== "open");
    };
    for (; ; ) {
      const found = queue.next(certain);
      if (!found) {
        const first2 = queue.giveWay();
        if (!first2) return postponed;
        postponed.add(first2.variable);
        continue;
      }
      const offered = applies(found) ? this.offeredNow(found) : null;
      if (offered === null || offered === "open" || !offered.otherwise.some((other) => reach.can(other))) queue.drop(found);
      else if (asking.surelyRefuses(offered)) queue.hold(found);
      else if (reach.extend(offered.lits)) queue.drop(found);
      else if (asking.allows(offered)) {
        sources.set(found.variable, found.proposal.source);
        given.set(found.variable, offered.value);
        queue.settle(found.variable);
        asking.refresh();
      } else {
        reach.retract(offered.lits.length);
        queue.hold(found);
      }
    }
  }
};
var Queue = class {
  /** By variable, in order of rank; only the first of each can have its turn. */
  waiting = /* @__PURE__ */ new Map();
  /** Offers that are the first of their variable, by rank. */
  first = [];
  /** Of these, the ones that would take a value from the person: what they would take stays free, so they wait for good. */
  held = [];
  /** No first offer stands before this rank, and none that is not held before the other. */
  lowest = 0;
  lowestFree = 0;
  constructor(offers) {
    for (const offer of offers) {
      const list2 = this.waiting.get(offer.variable);
      if (list2) list2.push(offer);
      else {
        this.waiting.set(offer.variable, [offer]);
        this.first[offer.rank] = offer;
      }
    }
  }
  next(certain) {
    const { first: first2, held } = this;
    while (this.lowestFree < first2.length && (!first2[this.lowestFree] || held[this.lowestFree])) this.lowestFree++;
    for (let rank = this.lowestFree; rank < first2.length; rank++) {
      const offer = first2[rank];
      if (offer && !held[rank] && certain(offer)) return offer;
    }
    return void 0;
  }
  hold({ rank }) {
    this.held[rank] = true;
  }
  /** The offer has had its turn. */
  drop({ rank, variable }) {
    this.first[rank] = void 0;
    const list2 = this.waiting.get(variable);
    list2.shift();
    const [next2] = list2;
    if (!next2) return;
    this.first[next2.rank] = next2;
    this.lowest = Math.min(this.lowest, next2.rank);
    this.lowestFree = Math.min(this.lowestFree, next2.rank);
  }
  /** Nothing more is offered for the variable. */
  settle(variable) {
    for (const { rank } of this.waiting.get(variable) ?? []) this.first[rank] = void 0;
    this.waiting.delete(variable);
  }
  /** Drops the first of those that wait. */
  giveWay() {
    while (this.lowest < this.first.length && !this.first[this.lowest]) this.lowest++;
    const offer = this.first[this.lowest];
    if (!offer) return null;
    this.drop(offer);
    return offer;
  }
};
var Asking = class {
  constructor(candidates2, memory2, encoding, reach) {
    this.memory = memory2;
    this.encoding = encoding;
    this.reach = reach;
    this.doubtful = memory2.doubtful;
    this.doubtfulHidden = memory2.doubtfulHidden;
    for (const variable of candidates2) this.look(variable);
    for (const wish of memory2.watched) if (!this.watched.has(wish)) reach.unwatch(wish);
    memory2.watched = this.watched;
    this.doubtful.clear();
    this.doubtfulHidden.clear();
  }
  memory;
  encoding;
  reach;
  numbers = /* @__PURE__ */ new Map();
  watched = /* @__PURE__ */ new Set();
  doubtful;
  doubtfulHidden;
  look(variable) {
    const { hidden, codes, row } = variable;
    const { reach } = this;
    if (hidden && reach.can(hidden)) {
      this.memory.ofHidden.set(hidden, variable);
      this.watched.add(hidden);
      reach.watch(hidden, this.doubtfulHidden);
      return;
    }
    if (row.kind === "number") {
      const ranges = rangesOf(row, this.encoding, reach);
      if (ranges.length > 1 || ranges.some(([from, to]) => from < to)) this.numbers.set(row, ranges);
      return;
    }
    const left = codes.filter((code) => reach.can(code.wish));
    if (left.length < 2) return;
    for (const { wish } of left) {
      this.watched.add(wish);
      reach.watch(wish, this.doubtful);
    }
  }
  /** Variables that have come to surely exist are asked from now on. */
  refresh() {
    for (const hidden of this.doubtfulHidden) {
      this.doubtfulHidden.delete(hidden);
      if (this.reach.can(hidden)) continue;
      this.watched.delete(hidden);
      this.reach.unwatch(hidden);
      this.look(this.memory.ofHidden.get(hidden));
    }
  }
  /** Whether an offer just assumed leaves everything; what it takes is remembered. */
  allows(offer) {
    for (const wish of this.doubtful) {
      if (!this.reach.can(wish)) {
        this.memory.victims.set(offer, { wish, core: this.reach.coreOf(wish) ?? [] });
        return false;
      }
      this.doubtful.delete(wish);
    }
    for (const [row, ranges] of this.numbers) if (rangesOf(row, this.encoding, this.reach).flat().join() !== ranges.flat().join()) return false;
    return true;
  }
  /** Whether what an offer took before would be taken for the same cause again. */
  surelyRefuses(offer) {
    const victim = this.memory.victims.get(offer);
    return victim !== void 0 && this.watched.has(victim.wish) && victim.core.every((lit) => offer.lits.includes(lit) || this.reach.assumes(lit));
  }
  any() {
    return this.numbers.size > 0 || [...this.watched].some((wish) => !this.memory.ofHidden.has(wish));
  }
};
var isFormula2 = (value) => value !== null && typeof value === "object";
function plainOf(value) {
  if (value === null || typeof value === "boolean" || typeof value === "string") return value;
  return value instanceof Exact || value instanceof Day ? String(value) : void 0;
}

// src/core/engine/messages.ts
var speakingRules = (encoding) => encoding.model.rules.filter(({ rule: rule2, severity: severity2 }) => (severity2 !== "error" || rule2.kind === "say") && encoding.inForce(rule2));
function messagesOf(model, rules, values) {
  const reading = new Reading(model, values);
  return rules.flatMap(({ rule: rule2, severity: severity2, when, must, all: all2, rows }) => {
    const is = (formula) => reading.run(formula);
    const applies = !when || is(when) === true;
    const listed = rows?.some((row) => row.every((cell) => is(cell) === true));
    const unsettledRow = rows?.some((row) => row.some((cell) => is(cell) === open));
    const broken = rule2.kind === "say" ? true : rule2.kind === "table" ? !unsettledRow && listed === (rule2.listed === "forbidden") : all2 ? all2.every((each) => is(each) === true) : must.some((each) => is(each) !== true && is(each) !== open);
    return applies && broken ? [{ rule: rule2.id, severity: severity2, text: rule2.reason, ...rule2.help === void 0 ? {} : { help: rule2.help } }] : [];
  });
}

// src/core/engine/standings.ts
var Standings = class {
  constructor(encoding, reach, context) {
    this.encoding = encoding;
    this.reach = reach;
    this.context = context;
  }
  encoding;
  reach;
  context;
  /** By key: codes that some build of the context has, or has not; what is once known stays known. */
  possible = [];
  /** Whether a value can be had beside the decisions; one's own decision on the variable is the one that it would replace. */
  free(code, own) {
    const free = this.reach.can(code.wish, own);
    if (free) this.possible[code.wish.key] = true;
    return free;
  }
  /** Whether the row can do without existing. */
  canHide({ hidden }) {
    return hidden !== null && this.reach.can(hidden);
  }
  /** The standing of what is not free. */
  refused(code) {
    return this.inContext(code) ? "swap" : "barred";
  }
  /** The same where it is known already. */
  known({ wish }) {
    const possible2 = this.possible[wish.key];
    return possible2 === void 0 ? void 0 : possible2 ? "swap" : "barred";
  }
  /** What could not be decided in the budget is left out, and told. */
  ranges(variable, own, unsure) {
    return variable.row.kind === "number" ? rangesOf(variable.row, this.encoding, this.reach, own, unsure) : [];
  }
  inContext(code) {
    const known2 = this.possible[code.wish.key] ?? (this.reach.coreOf(code.wish)?.length === 0 ? false : void 0);
    if (known2 !== void 0) return known2;
    this.context.startFrom(this.reach.base);
    const possible2 = this.context.can(code.wish);
    this.possible[code.wish.key] = possible2;
    return possible2;
  }
};

// src/core/engine/state.ts
var Doubts = class {
  list = /* @__PURE__ */ new Set();
  any = false;
  has(what) {
    return this.list.has(what);
  }
  add(what) {
    this.list.add(what);
    this.any = true;
  }
  /** The answer to a question about something; no, and a doubt, where it could not be had. */
  about(what, question) {
    return possible(question, () => this.add(what));
  }
  within(question, otherwise) {
    try {
      return question();
    } catch (thrown) {
      if (!(thrown instanceof OutOfBudget)) throw thrown;
      this.any = true;
      return otherwise;
    }
  }
};
var StateMaker = class {
  constructor(model, context, limits = {}) {
    this.limits = limits;
    this.encoding = new Encoding(model, context);
    this.variables = variablesOf(this.encoding);
    this.byOn = new Map(this.variables.map((variable) => [variable.on, variable]));
    for (const variable of this.variables) this.ofRow.set(variable.row.id, [...this.ofRow.get(variable.row.id) ?? [], variable]);
    const { solver, preferred } = this.encoding;
    this.reach = new Reach(solver, preferred);
    this.standings = new Standings(this.encoding, this.reach, new Reach(solver, preferred));
    this.layers = new Layers(this.encoding, this.variables, new Reach(solver, preferred));
    this.explainer = new Explainer(this);
    this.speaking = speakingRules(this.encoding);
  }
  limits;
  encoding;
  variables;
  byOn;
  /** What can be had beside the decisions of the state made last. */
  reach;
  explainer;
  standings;
  layers;
  speaking;
  ofRow = /* @__PURE__ */ new Map();
  assumed(input) {
    return assumedOf(input, this.encoding, this.byOn);
  }
  /** Begins a question that may take the whole budget. */
  begin() {
    this.explainer.allow(this.limits);
    this.encoding.solver.allowance = this.limits.budget ?? Infinity;
    this.encoding.solver.stop = this.limits.stop;
  }
  state(input) {
    const all2 = this.assumed(input);
    const doubts = new Doubts();
    const found = doubts.within(() => this.consistent(all2), null);
    if (!found) {
      for (const variable of this.variables) for (const what of [variable, ...variable.codes]) doubts.add(what);
      return this.write(all2, [], /* @__PURE__ */ new Map(), null, doubts);
    }
    const { kept, clashes } = found;
    const { base } = this.reach;
    if (!base || !kept) return this.write(all2, clashes, /* @__PURE__ */ new Map(), null, doubts);
    const own = new Map(kept.map((each) => [each.variable, each.lits]));
    const free = /* @__PURE__ */ new Map();
    const sources = new Map(kept.map((each) => [each.variable, each.source]));
    for (const variable of this.variables) {
      const found2 = this.freeOf(variable, own.get(variable), doubts);
      free.set(variable, found2);
      if (!own.has(variable) && this.count(variable, found2, doubts) === 1) sources.set(variable, "follows");
    }
    const settled = doubts.within(() => this.layers.settle(litsOf(kept), base, sources), { build: base, sources, given: /* @__PURE__ */ new Map(), waits: /* @__PURE__ */ new Set(), existence: ({ row }) => row.shown === always ? "shown" : "open", single: () => false });
    return this.write(all2, clashes, free, settled, doubts);
  }
  freeOf(variable, own, doubts) {
    const codes = doubts.within(() => variable.codes.map((code) => this.standings.free(code, own)), null) ?? variable.codes.map((code) => doubts.about(code, () => this.standings.free(code, own)));
    return { codes, count: codes.reduce((sum, free) => sum + Number(free), 0), ranges: this.standings.ranges(variable, own, () => doubts.add(variable)) };
  }
  /** Values a variable can have, its not existing among them; two stands for more. */
  count(variable, { count, ranges }, doubts) {
    const numbers3 = ranges.reduce((sum, [from, to]) => sum + Math.min(2, to - from + 1), 0);
    const unsure = doubts.any && (doubts.has(variable) || variable.codes.some((code) => doubts.has(code)));
    const mayHide = variable.hidden !== null && !doubts.within(() => !this.standings.canHide(variable), false);
    return count + numbers3 + (unsure || mayHide ? 1 : 0);
  }
  /** Keeps as many decisions as fit together, in the model's order; each one left out gives a clash with its smallest cause. */
  consistent(all2) {
    if (!this.reach.move(litsOf(all2))) return { kept: all2, clashes: [] };
    if (this.reach.move([])) return { kept: null, clashes: [{ decisions: [], causes: this.explainer.conflict([]) }] };
    const kept = [];
    const clashes = [];
    for (const each of all2) {
      if (!this.reach.move(litsOf([...kept, each]))) {
        kept.push(each);
        continue;
      }
      const causes = this.explainer.clash(kept, each);
      const others = causes.flatMap((cause) => cause.kind === "decision" ? [cause.decision] : []);
      clashes.push({ decisions: [...others.filter((decision) => decision !== each.decision), each.decision], causes });
    }
    return { kept, clashes };
  }
  write(all2, clashes, free, settled, doubts) {
    const { encoding } = this;
    const clashing = new Set(clashes.flatMap((clash) => clash.decisions.map((decision) => decision.on)));
    const decided3 = new Map(all2.map((each) => [each.variable, each]));
    const rows = {};
    const values = { today: encoding.context.date, ...encoding.context.values };
    for (const { id: id2 } of encoding.rows) {
      const writer = new RowWriter(this.ofRow.get(id2) ?? [], { free, settled, decided: decided3, clashing, standings: this.standings, doubts });
      const row = writer.write();
      rows[id2] = row;
      if (row.value !== void 0) values[id2] = row.value;
    }
    const sections = encoding.model.sections.map((section2) => {
      const own = section2.rows.flatMap((id2) => rows[id2] ?? []).filter((row) => row.shown);
      return { id: section2.id, shown: own.length > 0, todo: own.filter((row) => row.todo).length, clashes: own.filter((row) => row.clashing).length };
    });
    const complete = clashes.length === 0 && Object.values(rows).every((row) => row.value !== void 0);
    return { rows, values, clashes, messages: messagesOf(encoding.model, this.speaking, values), sections, complete, ...doubts.any ? { unproven: true } : {} };
  }
};
var [take, leave] = [0, 1];
var order = ["yours", "asked", "follows", "advised", "usual"];
var RowWriter = class {
  constructor(variables, found) {
    this.variables = variables;
    this.found = found;
    this.first = variables[0];
  }
  variables;
  found;
  first;
  write() {
    const { first: first2, variables, found } = this;
    const clashing = variables.some((variable) => found.clashing.has(variable.on));
    const base = { id: first2.row.id, clashing };
    const existence = first2.row.shown === always ? "shown" : (found.settled && found.doubts.within(() => found.settled?.existence(first2) ?? null, null)) ?? "open";
    const hidden = existence !== "shown" && !variables.every((variable) => this.clashes(variable));
    if (hidden) {
      const value = first2.row.kind === "many" ? [] : null;
      return { ...base, shown: false, source: existence === "hidden" ? "follows" : "open", todo: false, ...existence === "hidden" ? { value } : {} };
    }
    const shown = { ...base, shown: true };
    if (first2.row.kind === "many") return { ...shown, ...this.many() };
    const code = this.value(first2);
    const isOpen = code === void 0;
    const common = { ...shown, source: isOpen ? "open" : this.source(first2), todo: isOpen && !found.settled?.waits.has(first2), ...isOpen ? {} : { value: code } };
    switch (first2.row.kind) {
      case "number":
        return { ...common, ...found.doubts.has(first2) ? { unproven: true } : {}, allowed: this.allowed(), ...first2.row.entry.grid.optional ? { mayBeEmpty: (found.free.get(first2)?.ranges[0]?.[0] ?? 1) === 0 } : {} };
      case "yesno":
        return { ...common, ...first2.codes.some((code2) => found.doubts.has(code2)) ? { unproven: true } : {}, yes: this.standing(first2, 0), no: this.standing(first2, 1) };
      case "choice": {
        const several = (found.free.get(first2)?.count ?? 0) > 1;
        const options2 = [];
        first2.codes.forEach(({ value }, index) => {
          if (typeof value !== "string") return;
          const standing2 = this.standing(first2, index);
          const taken = value === code;
          options2.push(this.marked({ id: value, standing: standing2, taken, source: taken ? common.source : "open", changeable: taken ? several : standing2 === "free" }, first2, index));
        });
        return { ...common, options: options2 };
      }
    }
  }
  many() {
    const { variables, found } = this;
    const options2 = variables.map((variable) => {
      const taken2 = this.value(variable) === true;
      const id2 = variable.on.slice(variable.row.id.length + 1);
      return this.marked({ id: id2, standing: this.standing(variable, take), taken: taken2, source: this.source(variable), changeable: this.standing(variable, taken2 ? leave : take) === "free" }, variable, take);
    });
    const open2 = variables.filter((variable) => this.value(variable) === void 0);
    const strongest = order.find((each) => options2.some((option) => option.source === each && (option.taken || each === "yours"))) ?? "usual";
    const taken = options2.filter((option) => option.taken).map((option) => option.id);
    return { source: open2.length > 0 ? "open" : strongest, todo: open2.some((variable) => !found.settled?.waits.has(variable)), options: options2, ...open2.length > 0 ? {} : { value: taken } };
  }
  clashes(variable) {
    return this.found.clashing.has(variable.on) && this.found.decided.has(variable);
  }
  /** The value as it travels; undefined while open. */
  value(variable) {
    const { settled, decided: decided3 } = this.found;
    if (this.clashes(variable)) return decided3.get(variable).decision.value;
    if (!settled) return void 0;
    const known2 = settled.sources.has(variable);
    if (!known2 && !this.found.doubts.within(() => settled.single(variable), false)) return void 0;
    const { row } = variable;
    if (row.kind === "number") {
      const value = plainAt(row.entry.grid, settled.build.codes[row.number]);
      return row.entry.kind !== "length" || value === null ? value : decided3.get(variable)?.decision.value ?? settled.given.get(variable) ?? void 0;
    }
    return valueIn2(variable, settled.build);
  }
  source(variable) {
    return this.found.decided.get(variable)?.source ?? this.found.settled?.sources.get(variable) ?? (this.value(variable) === void 0 ? "open" : "follows");
  }
  standing(variable, at) {
    const { free, standings, doubts } = this.found;
    const code = variable.codes[at];
    if (free.get(variable)?.codes[at]) return "free";
    return standings.known(code) ?? (doubts.about(code, () => standings.refused(code) === "barred") ? "barred" : "swap");
  }
  marked(option, variable, at) {
    const { doubts } = this.found;
    return doubts.any && doubts.has(variable.codes[at]) ? { ...option, unproven: true } : option;
  }
  allowed() {
    const { row } = this.first;
    if (row.kind !== "number") return [];
    const { grid } = row.entry;
    const plain = (code) => String(valueAt(grid, code));
    const first2 = Number(grid.optional);
    return (this.found.free.get(this.first)?.ranges ?? []).flatMap(([from, to]) => to < first2 ? [] : [{ least: plain(Math.max(from, first2)), most: plain(to) }]);
  }
};
var valueIn2 = (variable, build) => variable.codes.find((code) => build.meets(code.wish.lits))?.value;

// src/core/numbering/check.ts
var alphabet = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ";
var size2 = alphabet.length;

// src/core/engine/index.ts
function createEngine(model, context, limits = {}) {
  const maker = new StateMaker(model, context, limits);
  const begun = () => {
    maker.begin();
    return maker;
  };
  return {
    model,
    context,
    state: (input) => begun().state(input),
    reason: (input, target) => begun().explainer.reason(input, target),
    secondReason: (input, target) => begun().explainer.secondReason(input, target),
    waysOut: (input, target) => begun().explainer.waysOut(input, target),
    best: (input, question, options2) => bestBuild(model, context, input, question, options2),
    changesNeeded: (input, target) => begun().explainer.changesNeeded(input, target)
  };
}

// src/core/engine/generated-models.ts
var large = { features: 300, options: 3e3, rules: 1500, seed: 1 };
var huge = { features: 2e3, options: 2e4, rules: 1e4, seed: 2 };
function randomFrom(seed) {
  let state = seed >>> 0;
  return (below) => {
    state = state + 1831565813 >>> 0;
    let mixed3 = Math.imul(state ^ state >>> 15, 1 | state);
    mixed3 = mixed3 + Math.imul(mixed3 ^ mixed3 >>> 7, 61 | mixed3) ^ mixed3;
    return ((mixed3 ^ mixed3 >>> 14) >>> 0) % below;
  };
}
var t = (text3) => ({ en: text3 });
function generatedModel({ features: count, options: options2, rules: wanted2, seed }) {
  const random2 = randomFrom(seed);
  const sizes = Array.from({ length: count }, () => 4);
  for (let left = options2 - 4 * count; left > 0; ) {
    const at = random2(count);
    if (sizes[at] >= 16) continue;
    sizes[at] = sizes[at] + 1;
    left--;
  }
  const features = sizes.map((size5, index) => {
    const id2 = `f${String(index)}`;
    const many = index % 10 === 9;
    return {
      id: id2,
      name: t(`Feature ${String(index)}`),
      least: many ? 0 : 1,
      most: many ? Math.min(size5, 3) : 1,
      options: Array.from({ length: size5 }, (_, option) => ({ id: `o${String(option)}`, code: option.toString(36).toUpperCase(), name: t(`Option ${String(option)}`) })),
      ...!many && random2(3) > 0 ? { usual: [`o${String(random2(size5))}`] } : {}
    };
  });
  const drawn = sizes.map((size5) => random2(size5));
  const one = (feature2, option) => {
    const id2 = `f${String(feature2)}`;
    return (features[feature2]?.most ?? 1) > 1 ? `list contains(${id2}, "o${String(option)}")` : `${id2} = "o${String(option)}"`;
  };
  const size4 = (feature2) => sizes[feature2];
  const near = (feature2) => {
    for (; ; ) {
      const other = random2(20) === 0 ? random2(count) : (feature2 + count - 8 + random2(17)) % count;
      if (other !== feature2) return other;
    }
  };
  const some = (feature2, share) => {
    const ids = Array.from({ length: size4(feature2) }, (_, option) => option).filter((option) => option === drawn[feature2] || random2(10) < share);
    return `f${String(feature2)} in [${ids.map((option) => `"o${String(option)}"`).join(", ")}]`;
  };
  const single = (from) => {
    let feature2 = from;
    while ((features[feature2]?.most ?? 1) > 1) feature2 = (feature2 + 1) % count;
    return feature2;
  };
  const hideable = /* @__PURE__ */ new Set();
  const rules = Array.from({ length: wanted2 }, (_, index) => {
    const base = { id: `r${String(index)}`, reason: t(`Rule ${String(index)}`) };
    const a = random2(count);
    const b = near(a);
    const kind = random2(20);
    const other = (feature2) => (random2(size4(feature2) - 1) + 1 + drawn[feature2]) % size4(feature2);
    if (kind < 8) return { ...base, kind: "exclude", all: [one(a, other(a)), one(b, random2(size4(b)))] };
    if (kind < 14) {
      const target = single(b);
      if (target !== a) return { ...base, kind: "require", when: one(a, random2(size4(a))), must: some(target, 5) };
    }
    if (kind < 17) {
      const [x, y] = [single(a), single((a + 1 + random2(6)) % count)];
      if (x !== y) {
        const rows = Array.from({ length: 4 + random2(8) }, () => [`"o${String(random2(size4(x)))}"`, random2(4) === 0 ? "-" : `"o${String(random2(size4(y)))}"`]);
        const passes = (row) => !(row[0] === `"o${String(drawn[x])}"` && (row[1] === "-" || row[1] === `"o${String(drawn[y])}"`));
        return { ...base, kind: "table", of: [`f${String(x)}`, `f${String(y)}`], listed: "forbidden", rows: rows.filter(passes).length > 0 ? rows.filter(passes) : [[`"o${String(other(x))}"`, "-"]] };
      }
    }
    if (kind === 17 && !hideable.has(b) && b > a) {
      hideable.add(b);
      return { ...base, kind: "show", of: `f${String(b)}`, when: one(a, drawn[a]) };
    }
    const c = near(a);
    return { ...base, kind: "exclude", all: [one(a, random2(size4(a))), one(b, random2(size4(b))), one(c, other(c))] };
  });
  const per = 12;
  return {
    format: 1,
    id: "generated",
    name: t("Generated"),
    languages: ["en"],
    context: [],
    sections: Array.from({ length: Math.ceil(count / per) }, (_, index) => ({ id: `s${String(index)}`, name: t(`Section ${String(index)}`), rows: features.slice(index * per, (index + 1) * per).map((feature2) => feature2.id) })),
    features,
    parameters: [],
    calculations: [],
    rules,
    numbering: [],
    prices: [],
    surcharges: [],
    materials: [],
    operations: [],
    figures: { more: [] }
  };
}

// ../../tmp/s.ts
var size3 = process.argv[2] === "huge" ? huge : large;
var r = compileModel(generatedModel(size3));
if (!r.ok) throw 1;
var ctx = { date: "2026-06-01", values: {} };
var t2 = performance.now();
var e = createEngine(r.model, ctx);
var made = performance.now() - t2;
t2 = performance.now();
var s = e.state({ decisions: [] });
var first = performance.now() - t2;
var random = randomFrom(7);
var ds = [];
var ts = [];
for (let i = 0; i < Number(process.argv[3] ?? 160); i++) {
  const rows = Object.values(s.rows).filter((x) => x.shown && x.options?.length);
  const row = rows[random(rows.length)];
  const many = r.model.document.features.find((f) => f.id === row.id).most > 1;
  const free = row.options.filter((o2) => o2.standing === "free" && !o2.taken);
  if (!free.length) continue;
  const o = free[random(free.length)];
  const on = many ? `${row.id}.${o.id}` : row.id;
  ds = [...ds.filter((d) => d.on !== on), { on, value: many ? true : o.id }];
  t2 = performance.now();
  s = e.state({ decisions: ds });
  ts.push(performance.now() - t2);
}
ts.sort((a, b) => a - b);
console.log("made", made.toFixed(0), "first", first.toFixed(0), "p50", ts[ts.length >> 1].toFixed(1), "p95", ts[Math.floor(ts.length * 0.95)].toFixed(1));
