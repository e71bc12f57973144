package dev.verbale;

/** The run, a container, a test or a step: what lines can belong to. Made by the recorder; to everybody else only a token to
 * hand back.
 *
 * @since 0.2.0
 */
public interface Scope {

    /** Where nothing is recorded. */
    Scope NONE = new Scope() {
        @Override
        public int id() {
            return 0;
        }
    };

    /** The id in the journal; 0 for the run. */
    int id();
}
