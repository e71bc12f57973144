package dev.verbale.results;

import java.util.regex.Pattern;

/** Reads stack traces as the JVM prints them. */
final class StackText {

    /** Libraries that stand between the suite's own code and the throwable. */
    private static final Pattern FOREIGN = Pattern.compile(
            "\\s*at (?:[\\w.@-]*//?)?(?:java|javax|jdk|sun|com\\.sun|org\\.junit|org\\.apache\\.maven|org\\.opentest4j|org\\.assertj|org\\.hamcrest"
                    + "|org\\.openqa|net\\.bytebuddy|groovy|org\\.codehaus\\.groovy|io\\.restassured|com\\.microsoft\\.playwright"
                    + "|okhttp3|kotlin|org\\.apache\\.hc|org\\.springframework|dev\\.verbale)\\..*");

    private StackText() {}

    /** The nearest frame that is no library's, such as {@code dev.orto.RotaTest.swaps(RotaTest.java:31)}, or nothing. */
    static String ownPlace(String stack) {
        return stack.lines()
                .map(String::strip)
                .filter(line -> line.startsWith("at ")
                        && line.contains(".java:")
                        && !FOREIGN.matcher(line).matches())
                .map(line -> line.substring(3))
                .findFirst()
                .orElse("");
    }
}
