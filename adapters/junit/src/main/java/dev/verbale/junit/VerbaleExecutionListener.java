package dev.verbale.junit;

import dev.verbale.ExpectedFailure;
import dev.verbale.Scope;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.Entered;
import dev.verbale.spi.TestEnd;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.platform.engine.TestExecutionResult;
import org.junit.platform.engine.UniqueId;
import org.junit.platform.engine.reporting.FileEntry;
import org.junit.platform.engine.reporting.ReportEntry;
import org.junit.platform.engine.support.descriptor.MethodSource;
import org.junit.platform.launcher.TestExecutionListener;
import org.junit.platform.launcher.TestIdentifier;
import org.junit.platform.launcher.TestPlan;

/**
 * Hears what the JUnit Platform runs, with any of its engines. Found by {@link java.util.ServiceLoader}; nobody needs to
 * name it.
 *
 * <p>Engines are left out unless one fails: they hold everything and say nothing.
 *
 * @since 0.2.0
 */
public final class VerbaleExecutionListener implements TestExecutionListener {

    private static final String ENGINE = "engine";

    private static final String FROM_REPORTER_WITHOUT_KEY = "value";

    /** Opened when a plan is executed: build tools also load this listener to find tests, in a JVM that runs none. */
    private volatile AdapterRecorder recorder = AdapterRecorder.none();

    private volatile @Nullable TestPlan plan;

    /** What began of the plan, or was skipped, so that a container that breaks can tell which of its tests never ran. */
    private final AtomicInteger launchesInside = new AtomicInteger();

    private final Set<UniqueId> begun = ConcurrentHashMap.newKeySet();

    @Override
    public void testPlanExecutionStarted(TestPlan started) {
        if (started == null) return;
        AdapterRecorder current = AdapterRecorder.current();
        if (plan != null) launchesInside.incrementAndGet(); // by the same launcher, from one of its own tests
        if (!Launches.begins(started, current) || plan != null) return;
        current.claim("junit-platform"); // JUnit 4's listener hears of the same tests by way of the Vintage engine
        recorder = current;
        plan = started;
    }

    @Override
    public void testPlanExecutionFinished(TestPlan finished) {
        if (finished == null) return;
        Launches.ends(finished);
        if (finished != plan) {
            if (plan != null) launchesInside.decrementAndGet();
            return;
        }
        plan = null; // a plan of 100,000 tests need not outlive its run
        begun.clear();
        OpenScopes.forget();
    }

    @Override
    public void executionStarted(TestIdentifier id) {
        TestPlan running = plan;
        if (running == null || isNobodys(id, running) || isEngine(id)) return;
        OpenScopes.Open outer = outer(id, running);
        if (outer == null || !outer.position().isMethod())
            begun.add(id.getUniqueIdObject()); // not each invocation of a method
        Position position = position(id, outer, running);
        Scope scope = id.isTest() ? startTest(id, position, outer) : startContainer(id, position, outer);
        OpenScopes.opened(new OpenScopes.Open(id.getUniqueIdObject(), id.isTest(), scope, position, outer));
    }

    /** What runs around it. Of the tests of a skipped class that is not their class: it never ran. */
    private static OpenScopes.@Nullable Open outer(TestIdentifier id, TestPlan running) {
        UniqueId parent = id.getParentIdObject().orElse(null);
        OpenScopes.Open open = parent == null ? null : OpenScopes.findAround(parent);
        if (open != null || parent == null) return open;
        Optional<TestIdentifier> further = running.getParent(id);
        return further.isEmpty() ? null : outer(further.get(), running);
    }

    private static Position position(TestIdentifier id, OpenScopes.@Nullable Open outer, TestPlan running) {
        if (outer == null) return Position.of(id, running);
        UniqueId parent = id.getParentIdObject().orElse(null);
        return outer.id().equals(parent) ? outer.position().within(id) : Position.of(id, running);
    }

    private Scope scope(OpenScopes.@Nullable Open outer) {
        return outer == null ? recorder.run() : outer.scope();
    }

    private static @Nullable Position positionOf(OpenScopes.@Nullable Open outer) {
        return outer == null ? null : outer.position();
    }

    private Scope startContainer(TestIdentifier id, Position position, OpenScopes.@Nullable Open outer) {
        return recorder.startContainer(scope(outer), position.descriptor(id, positionOf(outer)));
    }

    private Scope startTest(TestIdentifier id, Position position, OpenScopes.@Nullable Open outer) {
        Scope test = recorder.startTest(scope(outer), position.descriptor(id, positionOf(outer)));
        position.annotations().recordAbout(recorder);
        return test;
    }

    @Override
    public void executionFinished(TestIdentifier id, TestExecutionResult result) {
        TestPlan running = plan;
        if (running == null || result == null || id == null) return;
        OpenScopes.Open open = OpenScopes.close(id.getUniqueIdObject());
        if (open == null) {
            if (isNobodys(id, running)) return;
            if (isEngine(id) && result.getStatus() != TestExecutionResult.Status.SUCCESSFUL)
                recorder.endContainer(startContainer(id, Position.of(id, running), null), testEnd(result), 0);
        } else if (id.isTest()) {
            recorder.endTest(open.scope(), testEnd(open, result));
        } else {
            boolean whole = result.getStatus() == TestExecutionResult.Status.SUCCESSFUL;
            int notRun = whole
                    ? 0
                    : (int) leaves(id, running)
                            .filter(leaf -> !hasBegun(leaf, running))
                            .count();
            recorder.endContainer(open.scope(), testEnd(result), notRun);
        }
    }

    @Override
    public void executionSkipped(TestIdentifier id, String reason) {
        TestPlan running = plan;
        if (running == null || isNobodys(id, running)) return;
        // The platform is silent about the tests of a skipped class; a reader who misses them is not served by that.
        List<TestIdentifier> leaves = leaves(id, running).toList();
        for (TestIdentifier leaf : leaves) {
            begun.add(leaf.getUniqueIdObject());
            OpenScopes.Open outer = outer(leaf, running);
            recorder.endTest(startTest(leaf, position(leaf, outer, running), outer), TestEnd.skipped(reason));
        }
        if (!leaves.isEmpty() || isEngine(id)) return;
        OpenScopes.Open outer = outer(id, running);
        recorder.endContainer(startContainer(id, position(id, outer, running), outer), TestEnd.skipped(reason), 0);
    }

    /** An invocation of a method that began is known because it did. */
    private boolean hasBegun(TestIdentifier leaf, TestPlan running) {
        if (begun.contains(leaf.getUniqueIdObject())) return true;
        TestIdentifier around = running.getParent(leaf).orElse(null);
        return around != null
                && around.getSource().orElse(null) instanceof MethodSource
                && begun.contains(around.getUniqueIdObject());
    }

    /**
     * The tests in {@code id}, or itself where it is one. A method that has none yet counts as one: of a template or a factory
     * the tests are known when it runs.
     */
    private static Stream<TestIdentifier> leaves(TestIdentifier id, TestPlan running) {
        return Stream.concat(Stream.of(id), running.getDescendants(id).stream())
                .filter(one -> one.isTest()
                        || (one.getSource().orElse(null) instanceof MethodSource
                                && running.getChildren(one).isEmpty()));
    }

    @Override
    public void reportingEntryPublished(TestIdentifier id, ReportEntry entry) {
        if (plan == null || id == null || entry == null) return;
        try (Entered entered = OpenScopes.enter(recorder, id.getUniqueId())) {
            entry.getKeyValuePairs().forEach((key, value) -> {
                if (key.equals(FROM_REPORTER_WITHOUT_KEY)) recorder.log(value);
                else recorder.data(key, value);
            });
        }
    }

    @Override
    public void fileEntryPublished(TestIdentifier id, FileEntry file) {
        if (plan == null || id == null || file == null) return;
        try (Entered entered = OpenScopes.enter(recorder, id.getUniqueId())) {
            recorder.attach(file.getPath());
        }
    }

    private boolean isNobodys(@Nullable TestIdentifier id, TestPlan running) {
        if (id == null || !recorder.isRecording() || isClaimed(id)) return true;
        if (launchesInside.get() == 0) return false;
        try {
            return running.getTestIdentifier(id.getUniqueIdObject()) == null;
        } catch (RuntimeException ofAnotherPlan) {
            return true;
        }
    }

    /** An adapter listens to that framework itself, and hears more of it. The engine may be one that a suite holds. */
    private boolean isClaimed(TestIdentifier id) {
        if (!recorder.hasClaims()) return false;
        List<UniqueId.Segment> segments = id.getUniqueIdObject().getSegments();
        for (int i = 0; i < segments.size(); i++) { // asked for each test: an iterator would be made for each
            UniqueId.Segment segment = segments.get(i);
            if (segment.getType().equals(ENGINE) && recorder.isClaimed(segment.getValue())) return true;
            boolean isRunner = segment.getType().equals("runner");
            if (isRunner && recorder.isClaimed("cucumber") && CucumberRunner.runs(segment.getValue())) return true;
        }
        return false;
    }

    private static boolean isEngine(TestIdentifier id) {
        return id.getUniqueIdObject().getLastSegment().getType().equals(ENGINE);
    }

    private static TestEnd testEnd(OpenScopes.Open open, TestExecutionResult result) {
        Optional<ExpectedFailure> expected = open.position().annotations().expectedFailure();
        if (expected.isEmpty() || result.getStatus() == TestExecutionResult.Status.ABORTED) return testEnd(result);
        Throwable thrown = result.getThrowable().orElse(null);
        if (result.getStatus() == TestExecutionResult.Status.FAILED && thrown != null)
            return TestEnd.expectedFailure(expected.get().value(), thrown);
        return open.position().annotations().passed();
    }

    private static TestEnd testEnd(TestExecutionResult result) {
        Throwable thrown = result.getThrowable().orElse(null);
        return switch (result.getStatus()) {
            case SUCCESSFUL -> TestEnd.passed();
            case ABORTED -> TestEnd.aborted(thrown);
            case FAILED ->
                TestEnd.threw(thrown == null ? new IllegalStateException("failed without a reason") : thrown);
        };
    }
}
