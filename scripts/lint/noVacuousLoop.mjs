/** Is the loop inside a property? Lists drawn there may be empty now and then. */
function isDrawn(node) {
  for (let at = node.parent; at; at = at.parent) {
    const callee = at.type === 'CallExpression' && at.callee;
    if (callee && callee.property?.name === 'property') return true;
    if (callee && callee.name?.startsWith('forAll')) return true;
  }
  return false;
}

/** Written out in the file, so that everybody sees that it is not empty. */
function isWritten({ right }) {
  const name = right.type === 'Identifier' ? right.name : (right.callee?.object?.name ?? '');
  return right.type === 'ArrayExpression' || right.type === 'TSAsExpression' || /^[A-Z][A-Z_]*$/.test(name);
}

/** A test that loops over a list and checks each member has to fail when the list is empty. */
export const noVacuousLoop = {
  meta: {
    type: 'problem',
    schema: [],
    messages: { vacuous: 'a loop over an empty list checks nothing: loop over eachOf(list)' },
  },
  create(context) {
    return {
      ForOfStatement(node) {
        const body = context.sourceCode.getText(node.body);
        const guarded = node.right.type === 'CallExpression' && node.right.callee.name === 'eachOf';
        if (!/\bexpect\(/.test(body) || guarded || isWritten(node) || isDrawn(node)) return;
        context.report({ node, messageId: 'vacuous' });
      },
    };
  },
};
