package dev.verbale.engine.log;

import dev.verbale.spi.Capture;
import dev.verbale.spi.LogLine;
import java.io.ByteArrayOutputStream;
import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.charset.Charset;

/**
 * Keeps what goes to a standard stream, a line at a time and for each thread apart; the stream itself still gets every
 * byte, and first.
 */
public final class ConsoleTee extends OutputStream {

    /** A program that prints dots for an hour prints one line; what waits for its end must not grow for an hour. */
    private static final int LONGEST_LINE = 1 << 18;

    private final PrintStream console;
    private final Capture capture;
    private final String level;
    private final ThreadLocal<ByteArrayOutputStream> lines = ThreadLocal.withInitial(ByteArrayOutputStream::new);

    private ConsoleTee(PrintStream console, Capture capture, String level) {
        this.console = console;
        this.capture = capture;
        this.level = level;
    }

    public static void install(Capture capture) {
        System.setOut(new PrintStream(new ConsoleTee(System.out, capture, "out"), true));
        System.setErr(new PrintStream(new ConsoleTee(System.err, capture, "err"), true));
    }

    @Override
    public void write(int b) {
        write(new byte[] {(byte) b}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int from, int length) {
        console.write(bytes, from, length);
        ByteArrayOutputStream line = lines.get();
        for (int i = from; i < from + length; i++) {
            if (bytes[i] != '\n') line.write(bytes[i]);
            if (bytes[i] == '\n' || line.size() >= LONGEST_LINE) keep(line);
        }
    }

    private void keep(ByteArrayOutputStream line) {
        // The streams encode in the JVM's default charset.
        String text = line.toString(Charset.defaultCharset()).stripTrailing();
        line.reset();
        if (!text.isEmpty())
            capture.log(LogLine.of(text).level(level).logger("console").build());
    }

    @Override
    public void flush() {
        console.flush();
    }
}
