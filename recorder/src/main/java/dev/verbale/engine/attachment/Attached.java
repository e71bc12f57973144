package dev.verbale.engine.attachment;

import dev.verbale.engine.scope.ScopeNode;

/**
 * What somebody attaches, but for its content.
 *
 * @param scope to which
 * @param name what a reader sees
 * @param kind one of those in {@link dev.verbale.vocabulary.AttachmentKind}
 */
record Attached(ScopeNode scope, String name, String kind) {}
