package dev.verbale.rules;

import dev.verbale.results.TestResult;
import dev.verbale.results.reason.FailureEvidence;
import java.time.LocalDate;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What failures it is about, and what it says of them.
 *
 * @param line where it stands in its file, counted from 1
 * @param when what a failure has to have, all of it; of each, one of the patterns is enough
 * @param label such as {@code product}
 * @param owner who looks after it; null where nobody is named
 * @param link where more is to be found; null where it says nothing
 * @param comment for a reader; null where it says nothing
 * @param knownUntil until when nobody needs to look; null where it is not known in that sense
 * @since 0.2.0
 */
public record TriageRule(
        int line,
        Map<Subject, List<TextPattern>> when,
        String label,
        @Nullable String owner,
        @Nullable String link,
        @Nullable String comment,
        @Nullable LocalDate knownUntil) {

    public TriageRule {
        when = Map.copyOf(when);
    }

    /**
     * What is known of one reason of failures.
     *
     * @param reason its id; see {@link dev.verbale.results.reason.FailureReason}
     */
    public static TriageRule ofReason(
            String reason,
            String label,
            @Nullable String owner,
            @Nullable String link,
            @Nullable String comment,
            @Nullable LocalDate knownUntil) {
        return new TriageRule(
                1, Map.of(Subject.REASON, List.of(TextPattern.of(reason))), label, owner, link, comment, knownUntil);
    }

    /** What a rule may ask for. */
    public enum Subject {
        OUTCOME,
        MESSAGE,
        TYPE,
        FRAME,
        TEST,
        TAG,
        STEP,
        EXCHANGE,
        CONSOLE,
        ATTEMPT,
        DATA,
        REASON;

        /** As a file writes it. */
        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }

        static Optional<Subject> ofWord(String word) {
            for (Subject subject : values()) if (subject.word().equals(word)) return Optional.of(subject);
            return Optional.empty();
        }
    }

    /**
     * @param reason the id of the failure's reason, or empty
     */
    boolean matches(TestResult test, FailureEvidence evidence, String reason) {
        Map<Subject, List<String>> texts = new EnumMap<>(Subject.class);
        texts.put(Subject.OUTCOME, List.of(test.outcome().word()));
        texts.put(Subject.MESSAGE, evidence.messages());
        texts.put(Subject.TYPE, evidence.types());
        texts.put(Subject.FRAME, evidence.frames());
        texts.put(Subject.TEST, List.of(test.key(), String.join(" › ", test.path()) + " › " + test.name()));
        texts.put(Subject.TAG, test.tags());
        texts.put(Subject.STEP, evidence.steps());
        texts.put(Subject.EXCHANGE, evidence.exchanges());
        texts.put(Subject.CONSOLE, evidence.console());
        texts.put(Subject.ATTEMPT, List.of(String.valueOf(test.attempt().number())));
        texts.put(Subject.DATA, evidence.data());
        texts.put(Subject.REASON, reason.isEmpty() ? List.of() : List.of(reason));
        return when.entrySet().stream()
                .allMatch(wanted -> wanted.getValue().stream()
                        .anyMatch(pattern -> pattern.matches(texts.getOrDefault(wanted.getKey(), List.of()))));
    }

    /**
     * What it says, in one line, such as {@code environment, owner platform, known until 2026-12-31}; that its day is over where it is, by
     * {@code today}.
     */
    public String sentence(LocalDate today) {
        return sentence(today, null);
    }

    /** @param ofTests who looks after the tests, for where the rule names nobody; null for nobody */
    String sentence(LocalDate today, @Nullable String ofTests) {
        var text = new StringBuilder(label);
        String whose = owner == null ? ofTests : owner;
        if (whose != null) text.append(", owner ").append(whose);
        if (knownUntil != null && isExpired(today))
            text.append(", was known until ").append(knownUntil).append(": look at it again");
        else if (knownUntil != null) text.append(", known until ").append(knownUntil);
        if (comment != null) text.append(", ").append(comment);
        if (link != null) text.append(", ").append(link);
        return text.toString();
    }

    /** Whether it was known only until a day before {@code today}. */
    public boolean isExpired(LocalDate today) {
        return knownUntil != null && knownUntil.isBefore(today);
    }
}
