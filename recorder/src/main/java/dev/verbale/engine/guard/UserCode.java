package dev.verbale.engine.guard;

import dev.verbale.border.ShownValue;
import dev.verbale.border.ThreadStop;
import dev.verbale.engine.scope.ThreadContext;
import java.io.IOException;
import java.io.InputStream;
import java.util.Objects;
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

    private final Guard guard;

    UserCode(Guard guard) {
        this.guard = guard;
    }

    /** {@code value} as text. */
    public String text(@Nullable Object value) {
        return (String) Objects.requireNonNull(asked(new Question(Question.TEXT, value)));
    }

    @Nullable
    public String message(Throwable thrown) {
        return (String) asked(new Question(Question.MESSAGE, thrown));
    }

    @Nullable
    public Throwable cause(Throwable thrown) {
        return (Throwable) asked(new Question(Question.CAUSE, thrown));
    }

    /** Null where it does not say. */
    public StackTraceElement @Nullable [] frames(Throwable thrown) {
        return (StackTraceElement[]) asked(new Question(Question.FRAMES, thrown));
    }

    private @Nullable Object asked(Question question) {
        return this.<@Nullable Object>asked(question, question);
    }

    /** Has {@code work} done, whatever it throws. */
    public void run(Runnable work) {
        asked(new Question(Question.WORK, work));
    }

    /** What {@code question} gives, or {@code refused} makes of what it throws. */
    public <T extends @Nullable Object> T asked(Supplier<T> question, Function<Throwable, T> refused) {
        ThreadContext context = guard.context();
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

    /** One class for those that every run asks: a lambda is a class of its own too, made in each JVM before its first test. */
    private static final class Question implements Supplier<@Nullable Object>, Function<Throwable, @Nullable Object> {

        static final int TEXT = 0;
        static final int MESSAGE = 1;
        static final int CAUSE = 2;
        static final int FRAMES = 3;
        static final int WORK = 4;

        private final int what;
        private final @Nullable Object subject;

        Question(int what, @Nullable Object subject) {
            this.what = what;
            this.subject = subject;
        }

        @Override
        public @Nullable Object get() {
            if (what == TEXT) return ShownValue.of(subject);
            if (what == WORK) return done((Runnable) Objects.requireNonNull(subject));
            var thrown = (Throwable) Objects.requireNonNull(subject);
            return what == MESSAGE ? thrown.getMessage() : what == CAUSE ? thrown.getCause() : thrown.getStackTrace();
        }

        private static @Nullable Object done(Runnable work) {
            work.run();
            return null;
        }

        @Override
        public @Nullable Object apply(Throwable broken) {
            if (what == TEXT) return ShownValue.refusal("toString", subject, broken);
            return what == MESSAGE ? ShownValue.refusal("getMessage", subject, broken) : null;
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
