package dev.verbale.secrets;

/** What stands in the place of a secret. */
final class Mask {

    static final String TEXT = "[masked]";

    private Mask() {}
}
