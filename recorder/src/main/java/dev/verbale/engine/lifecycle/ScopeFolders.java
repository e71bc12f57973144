package dev.verbale.engine.lifecycle;

import dev.verbale.folder.FileNames;
import dev.verbale.spi.TestDescriptor;

/** What the folders of tests are called. */
final class ScopeFolders {

    private ScopeFolders() {}

    /** Such as {@code RotaPageTest-Swapping} for a class in a class. */
    public static String ofClass(TestDescriptor who) {
        String className = who.className();
        if (className == null) return FileNames.of(who.source() == null ? who.key() : file(who.source()));
        return FileNames.of(className.substring(className.lastIndexOf('.') + 1));
    }

    /** Such as {@code rota} of {@code features/rota.feature:12}. */
    private static String file(String source) {
        return source.replaceFirst(":\\d+$", "").replaceFirst(".*/", "").replaceFirst("\\.\\w+$", "");
    }

    /** Such as {@code swaps-two-plots}; with the method's name first where the name alone says little. */
    public static String ofTest(TestDescriptor who) {
        String name = who.name();
        String method = who.methodName();
        boolean bare = !name.matches(".*\\p{L}{3}.*") || name.startsWith("[");
        return FileNames.small(method != null && bare ? method + "-" + name : name);
    }
}
