package dev.verbale.results.reason;

import dev.verbale.event.Failure;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.FailureParts;
import dev.verbale.results.OwnFrames;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * A reason that tests share, and set-ups of classes. {@code docs/reasons.md} says by which rules, and how often they are right.
 *
 * @param id the same in every run, such as {@code 3f09a1c2b7d4}
 * @param title as a person would say it
 * @param type the class name of what the first of them threw
 * @param frame the nearest one of the suite's own code in the first of them, or nothing where there is none
 * @param evidence the recorded line that explains it; null where the title says all that was recorded
 * @param tests in order; empty only where there is a container
 * @param containers those whose own set-up or tear-down failed for it, in order
 * @since 0.2.0
 */
public record FailureReason(
        String id,
        String title,
        String type,
        String frame,
        @Nullable String evidence,
        List<TestResult> tests,
        List<ContainerResult> containers) {

    public FailureReason {
        tests = List.copyOf(tests);
        containers = List.copyOf(containers);
    }

    /** The reasons in {@code run}, the most frequent first, then in the order of their first test. */
    public static List<FailureReason> of(Run run) {
        return of(run, run.needingAttention(), run.brokenContainers());
    }

    /**
     * Why the flaky tests of {@code run} did not pass at first: the reasons of the last attempt of each that had not passed, the most
     * frequent first. Their ids are those that the same failures have where a test stays red.
     */
    public static List<FailureReason> ofFlaky(Run run) {
        Set<String> flaky = new HashSet<>();
        for (TestResult test : run.flaky()) flaky.add(test.key());
        Map<String, TestResult> last = new LinkedHashMap<>();
        for (TestResult test : run.tests())
            if (flaky.contains(test.key())
                    && test.superseded()
                    && test.outcome().needsAttention()) last.put(test.key(), test);
        return of(run, List.copyOf(last.values()), List.of());
    }

    private static List<FailureReason> of(Run run, List<TestResult> failed, List<ContainerResult> broken) {
        OwnFrames own = run.ownFrames();
        Map<String, Group> groups = new LinkedHashMap<>();
        for (Seen seen : seen(failed, own))
            groups.computeIfAbsent(seen.print().key(), key -> new Group(seen.print(), seen.failure()))
                    .tests
                    .add(seen.test());
        for (ContainerResult container : broken) {
            Failure thrown = container.failure();
            Failure failure = thrown == null ? NOTHING : thrown;
            Fingerprint print = thrown == null
                    ? Fingerprint.withoutFailure(container.outcome(), container.reason(), "")
                    : Fingerprint.of(FailureContext.outside(container.className(), thrown, own));
            groups.computeIfAbsent(print.key(), key -> new Group(print, failure))
                    .containers
                    .add(container);
        }
        List<FailureReason> reasons = new ArrayList<>();
        for (Group group : joined(groups)) reasons.add(group.reason(own));
        reasons.sort((a, b) -> Integer.compare(b.tests().size(), a.tests().size()));
        return reasons;
    }

    /** Which of {@code reasons} each test has, by the test's id. */
    public static Map<String, FailureReason> byTest(List<FailureReason> reasons) {
        Map<String, FailureReason> byTest = new HashMap<>();
        for (FailureReason reason : reasons) for (TestResult test : reason.tests()) byTest.put(test.id(), reason);
        return byTest;
    }

    private record Seen(TestResult test, Failure failure, Fingerprint print) {}

    /** In order. Where thousands failed, each processor looks at some of them. */
    private static List<Seen> seen(List<TestResult> failed, OwnFrames own) {
        Stream<TestResult> tests = failed.size() > MAX_ALONE ? failed.parallelStream() : failed.stream();
        return tests.map(test -> {
                    Failure failure = test.failure();
                    return failure == null
                            ? new Seen(test, NOTHING, Fingerprint.withoutFailure(test))
                            : new Seen(test, failure, Fingerprint.of(FailureContext.of(test, failure, own)));
                })
                .toList();
    }

    /** Of a test that never ended, or of which an adapter says no more than that it failed. */
    private static final Failure NOTHING = Failure.of("", "").build();

    /** Failures that one thread looks at sooner than two. */
    private static final int MAX_ALONE = 500;

    /** More different messages of one method are no longer compared: they are as many things, or nobody could tell. */
    private static final int MAX_WORDINGS = 50;

    /**
     * A browser's list of requests has no bodies: what it shows of an endpoint belongs to what another test recorded of the same
     * one, where that is a single reason. And what two sides of a product show of one change is one reason, as are the messages
     * that one statement makes.
     */
    private static List<Group> joined(Map<String, Group> groups) {
        Map<String, List<Group>> fuller = new HashMap<>();
        for (Group group : groups.values())
            if (group.print.open() != null && !group.isOpen())
                fuller.computeIfAbsent(group.print.open(), key -> new ArrayList<>())
                        .add(group);
        List<Group> left = new ArrayList<>();
        Map<String, List<Group>> byWords = new HashMap<>();
        Map<String, List<Group>> byOrigin = new HashMap<>();
        for (Group group : groups.values()) {
            List<Group> same = group.isOpen() ? fuller.getOrDefault(group.print.open(), List.of()) : List.<Group>of();
            Group other = same.size() == 1 ? same.get(0) : null;
            Difference difference = group.print.difference();
            if (difference != null) {
                List<Group> alike = byWords.computeIfAbsent(difference.words(), words -> new ArrayList<>());
                other = alike.stream()
                        .filter(one -> one.showsAlso(difference))
                        .findFirst()
                        .orElse(other);
                if (other == null) alike.add(group);
            }
            Wording wording = group.print.wording();
            if (other == null && wording != null) {
                List<Group> there = byOrigin.computeIfAbsent(wording.origin(), origin -> new ArrayList<>());
                other = there.stream()
                        .filter(one -> one.says(wording))
                        .findFirst()
                        .orElse(null);
                if (other == null && there.size() < MAX_WORDINGS) there.add(group);
            }
            if (other == null) left.add(group);
            else {
                other.tests.addAll(group.tests);
                other.containers.addAll(group.containers);
            }
        }
        return left;
    }

    /** While they are gathered. */
    private static final class Group {
        private final Fingerprint print;
        private final Failure first;
        private final List<TestResult> tests = new ArrayList<>();
        private final List<ContainerResult> containers = new ArrayList<>();

        private Group(Fingerprint print, Failure first) {
            this.print = print;
            this.first = first;
        }

        /** Whether nobody recorded what the body said. */
        private boolean isOpen() {
            return print.open() != null && print.key().equals(print.open() + "|");
        }

        private boolean showsAlso(Difference difference) {
            return print.difference() != null && print.difference().isAlso(difference);
        }

        private boolean says(Wording wording) {
            return print.wording() != null && print.wording().isLike(wording);
        }

        /** Of one that gathers others, which was thrown where they were told: where the first of them was. */
        private static String nearest(Failure failure, OwnFrames own) {
            String frame = own.nearest(failure.stack());
            for (Failure part : FailureParts.of(failure)) if (frame.isEmpty()) frame = nearest(part, own);
            return frame;
        }

        private FailureReason reason(OwnFrames own) {
            return new FailureReason(
                    shortHash(print.key()),
                    print.title(),
                    first.type(),
                    nearest(first, own),
                    print.evidence(),
                    tests,
                    containers);
        }
    }

    private static String shortHash(String key) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(key.getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(hash, 0, 6);
        } catch (NoSuchAlgorithmException everyJvmHasIt) {
            throw new IllegalStateException(everyJvmHasIt);
        }
    }
}
