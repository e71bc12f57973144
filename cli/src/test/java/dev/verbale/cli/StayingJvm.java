package dev.verbale.cli;

import dev.verbale.ci.CiSystem;
import dev.verbale.testing.Jvm;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/**
 * Runs one command after the other in a JVM that stays, in a folder of its own: a JVM for each would be most of the time of the
 * tests. What a command writes past its writers, to the standard streams, is in its output too.
 */
final class StayingJvm implements AutoCloseable {

    /** What a command wrote and how it ended. */
    record Output(int code, String out, String err) {}

    private final Process jvm;
    private final DataOutputStream to;
    private final DataInputStream from;

    StayingJvm(Path folder, Map<String, String> environment) throws IOException {
        var builder = new ProcessBuilder(Jvm.command(List.of(), Jvm.classPath(), StayingJvm.class))
                .directory(folder.toFile())
                .redirectError(ProcessBuilder.Redirect.INHERIT);
        builder.environment().remove("VERBALE_ROOT");
        builder.environment().keySet().removeAll(CiSystem.variables()); // of the build that runs this test
        builder.environment().putAll(environment);
        jvm = builder.start();
        to = new DataOutputStream(jvm.getOutputStream());
        from = new DataInputStream(jvm.getInputStream());
    }

    Output run(String... arguments) throws IOException {
        to.writeInt(arguments.length);
        for (String argument : arguments) write(to, argument);
        to.flush();
        return new Output(from.readInt(), read(from), read(from));
    }

    @Override
    public void close() throws IOException {
        to.close(); // its end of input is its end
        jvm.destroy();
    }

    /** In the JVM that stays. */
    public static void main(String[] none) throws IOException {
        var requests = new DataInputStream(System.in);
        var answers = new DataOutputStream(System.out);
        System.setIn(InputStream.nullInputStream());
        while (true) {
            int count;
            try {
                count = requests.readInt();
            } catch (IOException over) {
                return;
            }
            String[] arguments = new String[count];
            for (int i = 0; i < count; i++) arguments[i] = read(requests);
            var out = new ByteArrayOutputStream();
            var err = new ByteArrayOutputStream();
            System.setOut(new PrintStream(out, true, StandardCharsets.UTF_8));
            System.setErr(new PrintStream(err, true, StandardCharsets.UTF_8));
            answers.writeInt(execute(out, err, arguments));
            write(answers, out.toString(StandardCharsets.UTF_8));
            write(answers, err.toString(StandardCharsets.UTF_8));
            answers.flush();
        }
    }

    private static int execute(OutputStream out, OutputStream err, String[] arguments) {
        var outWriter = new PrintWriter(out, true, StandardCharsets.UTF_8);
        var errWriter = new PrintWriter(err, true, StandardCharsets.UTF_8);
        int code = Main.commandLine(outWriter, errWriter, arguments).execute(arguments);
        outWriter.flush();
        errWriter.flush();
        return code;
    }

    /** As {@code writeUTF} would, but for texts of any length. */
    private static void write(DataOutputStream to, String text) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        to.writeInt(bytes.length);
        to.write(bytes);
    }

    private static String read(DataInputStream from) throws IOException {
        return new String(from.readNBytes(from.readInt()), StandardCharsets.UTF_8);
    }
}
