package dev.verbale.otlp;

import io.opentelemetry.sdk.trace.IdGenerator;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Ids by what they are for: a run that is sent twice has the same ones, so that whoever collects them can tell. */
final class RunIds implements IdGenerator {

    private static final String NO_TRACE = "0".repeat(32);
    private static final String NO_SPAN = "0".repeat(16);

    private final String run;
    private String trace = "";
    private int span;

    RunIds(String run) {
        this.run = run;
    }

    /** From here on ids are those of the trace called {@code name}. */
    void begin(String name) {
        trace = hash(run + "\0" + name);
        span = 0;
    }

    @Override
    public String generateTraceId() {
        String id = trace.substring(0, 32);
        return id.equals(NO_TRACE) ? NO_TRACE.substring(1) + "1" : id;
    }

    @Override
    public String generateSpanId() {
        String id = hash(trace + "\0" + span++).substring(0, 16);
        return id.equals(NO_SPAN) ? NO_SPAN.substring(1) + "1" : id;
    }

    private static String hash(String text) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException never) {
            throw new AssertionError(never); // each JDK has it
        }
    }
}
