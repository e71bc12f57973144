package dev.verbale.results;

/**
 * The key of a test or a container in a build of several modules: that of the journal, behind its module in brackets, such as
 * {@code [garden/beds] dev.orto.BedTest.grows()}. The same class in two modules is two tests. The module can be read from the key.
 *
 * @since 0.2.0
 */
public final class ModuleKey {

    private ModuleKey() {}

    /**
     * That of {@code key} in {@code module}; {@code key} itself where the build has one module only. Empty brackets stand before a
     * key that begins like one with a module and has none, such as {@code [smoke] opens the gate} of a runner of one's own.
     */
    public static String of(String module, String key) {
        return module.isEmpty() && end(key) < 0 ? key : "[" + module + "] " + key;
    }

    /** What stands behind the module; all of {@code key} where none is named. */
    public static String withoutModule(String key) {
        int end = end(key);
        return end < 0 ? key : key.substring(end + 2);
    }

    /** The module that {@code key} names; empty where it names none. */
    public static String module(String key) {
        int end = end(key);
        return end < 0 ? "" : key.substring(1, end);
    }

    private static int end(String key) {
        return key.startsWith("[") ? key.indexOf("] ") : -1;
    }
}
