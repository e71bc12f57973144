package dev.verbale.contract;

/**
 * A place where a response is not what its contract says.
 *
 * @param at a JSON pointer into the response, such as {@code /beds/1/metres}; empty where it is about the response as a whole
 * @param what such as {@code string found, number expected}
 */
record Violation(String at, String what) {

    @Override
    public String toString() {
        return at.isEmpty() ? what : at + ": " + what;
    }
}
