package dev.verbale.engine.guard;

import dev.verbale.border.ShownValue;
import dev.verbale.border.ThreadStop;
import dev.verbale.engine.scope.ThreadContext;
import java.io.IOException;
import java.io.InputStream;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Asks what belongs to the suite: values for their texts, throwables for their messages, streams for their bytes. Their code
 * may do anything. What it throws is an answer too, whatever it is; and what it records while it answers is recorded, as if
 * nobody were asking.
 */
public final class UserCode {

    /** A value that records itself while it is asked for its text would go on for ever. */
    private static final int DEEPEST = 8;

    private final Supplier<ThreadContext> contexts;

    public UserCode(Supplier<ThreadContext> contexts) {
        this.contexts = contexts;
    }

    /** {@code value} as text. */
    public String text(@Nullable Object value) {
        return asked(() -> ShownValue.of(value), broken -> ShownValue.refusal("toString", value, broken));
    }

    @Nullable
    public String message(Throwable thrown) {
        return this.<@Nullable String>asked(
                thrown::getMessage, broken -> ShownValue.refusal("getMessage", thrown, broken));
    }

    @Nullable
    public Throwable cause(Throwable thrown) {
        return this.<@Nullable Throwable>asked(thrown::getCause, broken -> null);
    }

    /** Null where it does not say. */
    public StackTraceElement @Nullable [] frames(Throwable thrown) {
        return this.<StackTraceElement @Nullable []>asked(thrown::getStackTrace, broken -> null);
    }

    /** Has {@code work} done, whatever it throws. */
    public void run(Runnable work) {
        this.<@Nullable Void>asked(
                () -> {
                    work.run();
                    return null;
                },
                broken -> null);
    }

    /** What {@code question} gives, or {@code refused} makes of what it throws. */
    public <T extends @Nullable Object> T asked(Supplier<T> question, Function<Throwable, T> refused) {
        ThreadContext context = contexts.get();
        boolean recording = context.recording;
        if (context.asking >= DEEPEST) return refused.apply(new IllegalStateException("it asks for itself"));
        try {
            context.asking++;
            context.recording = false;
            return question.get();
        } catch (Throwable broken) {
            ThreadStop.goesOn(broken);
            return refused.apply(broken);
        } finally {
            context.asking--;
            context.recording = recording;
        }
    }

    /** {@code content}, which throws nothing but {@link IOException}s. */
    public InputStream stream(InputStream content) {
        return new Read(content);
    }

    private final class Read extends InputStream {
        private final InputStream content;

        public Read(InputStream content) {
            this.content = content;
        }

        @Override
        public int read() throws IOException {
            var one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
        }

        @Override
        public int read(byte[] into, int from, int length) throws IOException {
            Object answer = asked(
                    () -> {
                        try {
                            return (Object) content.read(into, from, length);
                        } catch (IOException broken) {
                            return broken;
                        }
                    },
                    broken -> new IOException("its stream threw " + ShownValue.of(broken), broken));
            if (answer instanceof IOException broken) throw broken;
            int read = (Integer) answer;
            if (read > length) throw new IOException("its stream gave " + read + " bytes where " + length + " fit");
            return read;
        }
    }
}
