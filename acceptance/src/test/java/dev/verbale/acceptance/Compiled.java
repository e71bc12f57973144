package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import javax.tools.ToolProvider;

/** Sources that the JDK's compiler takes. */
final class Compiled {

    private Compiled() {}

    /** In this JVM, for most of the time is the compiler's start. */
    static void with(List<String> arguments) {
        var messages = new ByteArrayOutputStream();
        int result =
                ToolProvider.getSystemJavaCompiler().run(null, messages, messages, arguments.toArray(String[]::new));
        assertThat(result).as(messages.toString(StandardCharsets.UTF_8)).isZero();
    }
}
