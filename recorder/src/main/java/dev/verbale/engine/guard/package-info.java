/**
 * The border between recording and the tests: nothing that goes wrong in recording gets out, and the suite's own code is asked
 * so that nothing it does gets in.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread. Not exported.
 */
@NullMarked
package dev.verbale.engine.guard;

import org.jspecify.annotations.NullMarked;
