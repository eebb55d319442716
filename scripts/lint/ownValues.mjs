// A lint rule: what is kept by text that comes from a plan, a file or a person (an id, a column, a unit) must not be
// read by `record[text]`: "constructor" and "toString" are there on every object, and "__proto__" cannot be set. Typed,
// so that lists, records by a union of known names, and Maps pass.
const MESSAGE =
  'Do not index an object by any text: a drive may be called "constructor". Use ownValue and withValue of ' +
  "core/records/ownValue, or a Map.";

/** Whether an object of this type can be indexed by any text. */
function isByText(checker, type) {
  const parts = type.isUnion() ? type.types : [type];
  return parts.some((part) => checker.getStringIndexType?.(part) ?? checker.getIndexTypeOfType(part, 0));
}

const ownValues = {
  meta: { type: "problem", schema: [], messages: { own: MESSAGE } },
  create(context) {
    const services = context.sourceCode.parserServices;
    const checker = services.program.getTypeChecker();
    return {
      "MemberExpression[computed=true]"(node) {
        if (node.property.type === "Literal") return;
        if (isByText(checker, services.getTypeAtLocation(node.object))) context.report({ node, messageId: "own" });
      },
      'BinaryExpression[operator="in"]'(node) {
        if (node.left.type !== "Literal") context.report({ node, messageId: "own" });
      },
    };
  },
};

export default ownValues;
