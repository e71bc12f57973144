package dev.verbale.results;

import dev.verbale.event.AboutStated;
import dev.verbale.event.AttachmentPending;
import dev.verbale.event.AttachmentStored;
import dev.verbale.event.CheckMade;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.Event;
import dev.verbale.event.EventsMissed;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.FactStated;
import dev.verbale.event.Failure;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.JournalOpened;
import dev.verbale.event.LogWritten;
import dev.verbale.event.ProblemMet;
import dev.verbale.event.StepBudgeted;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestIdentified;
import dev.verbale.event.TestStarted;
import dev.verbale.event.UnknownEvent;
import dev.verbale.folder.RunFolder;
import dev.verbale.journal.JournalFormat;
import dev.verbale.journal.JournalReader;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;

/** Puts the lines of one journal together: what began, what happened in it, how it ended. */
final class JournalNodes implements JournalReader.Listener {

    /** By their places in the journal; without those that were handed on. */
    final NavigableMap<Integer, OpenNode> tests = new TreeMap<>();

    final List<OpenNode> containers = new ArrayList<>();
    final OpenNode run = new OpenNode(null, null);
    final Map<String, String> facts = new LinkedHashMap<>();

    @Nullable
    JournalOpened opened;

    long lastAt;
    boolean ended;
    Map<String, Long> missingByKind = Map.of();
    Duration overhead = Duration.ZERO;

    private final RunFolder folder;
    private final JournalProblems problems;
    private final NodesById nodes = new NodesById();
    private final Map<Integer, OpenNode> pending = new HashMap<>();
    private final FailureReferences failures = new FailureReferences();
    private final Map<Integer, EarlyAbout> early = new HashMap<>();
    private final Map<String, Integer> unknown = new LinkedHashMap<>();

    /** What was said of a test before it began. */
    private record EarlyAbout(About about, int line) {}

    private final HandingOn handingOn;
    private final IdentityHashMap<OpenNode, Integer> numbers = new IdentityHashMap<>();
    private int testsBegun;

    /** When tests are handed on, and to whom; counted in their journal, from 0. */
    sealed interface HandingOn {}

    /** None before the end of the journal. */
    record AtTheEnd() implements HandingOn {}

    /**
     * Each after its last line. {@link TestLines} has gone through the journal before, and knows which lines these are.
     *
     * @param order the numbers of the tests, by the lines after which nothing more belongs to them
     * @param lines those lines, in the same order
     */
    record AtLines(int[] order, int[] lines, BiConsumer<Integer, OpenNode> tests) implements HandingOn {}

    /** Each when it ended and nothing in it is known to go on: most are whole then. A {@link LateLine} where one was not. */
    record WhenEnded(BiConsumer<Integer, OpenNode> tests) implements HandingOn {}

    /** A line belongs to a test that was handed on. */
    static final class LateLine extends RuntimeException {
        private static final long serialVersionUID = 1L;

        private LateLine() {
            super("a line belongs to a test that was handed on", null, false, false);
        }
    }

    JournalNodes(RunFolder folder, JournalProblems problems, HandingOn handingOn) {
        this.folder = folder;
        this.problems = problems;
        this.handingOn = handingOn;
    }

    /** All lines were read. */
    void end() {
        for (OpenNode test : tests.descendingMap().values()) handOnLast(test);
        for (int i = containers.size() - 1; i >= 0; i--) handOnLast(containers.get(i));
        run.scope.handOnLast();
        early.forEach((id, about) -> problems.add(
                about.line(), "says what " + id + " is about, whose beginning is not in this journal; it is left out"));
        unknown.forEach((what, count) -> problems.add(
                0,
                what + " is of a later version, and shown as it is" + (count == 1 ? "" : " (" + count + " times)")
                        + ". Read the run with a newer Verbale"));
    }

    @Override
    public void unread(int line, String why) {
        problems.add(line, why);
    }

    @Override
    public void odd(int line, String what) {
        problems.add(line, what);
    }

    @Override
    public void unknown(int line, String what) {
        unknown.merge(what, 1, Integer::sum);
    }

    @Override
    public void event(Event event, int line) {
        put(event, line);
        handOn(event, line);
    }

    private int handedOn;

    /** Where the attachment belongs that was stored last, if somebody waited for it. */
    private @Nullable OpenNode completed;

    private void handOn(Event event, int line) {
        if (handingOn instanceof AtLines at) handOn(at, line);
        else if (handingOn instanceof WhenEnded ended) handOn(ended, event);
    }

    private void handOn(AtLines at, int line) {
        for (; handedOn < at.lines.length && at.lines[handedOn] <= line; handedOn++) {
            int number = at.order[handedOn];
            OpenNode test = tests.get(number);
            if (test == null || !isOver(test) || test.scope.hasOpen()) continue; // at the end of the journal
            letGo(number, test);
            at.tests.accept(number, test);
        }
    }

    /** What ends with this event may have been the last of its test. */
    private void handOn(WhenEnded ended, Event event) {
        OpenNode node = null;
        if (event instanceof TestEnded || event instanceof StepEnded) node = nodes.get(((Event.OfBegun) event).id());
        else if (event instanceof AttachmentStored) node = completed;
        for (OpenNode test = node == null ? null : node.scope.test(); test != null; test = around(test)) {
            Integer number = numbers.get(test);
            if (number == null || !isOver(test) || test.scope.isGoing()) return;
            letGo(number, test);
            numbers.remove(test);
            ended.tests.accept(number, test);
        }
    }

    private static @Nullable OpenNode around(OpenNode test) {
        return test.outer == null ? null : test.outer.scope.test();
    }

    /** One that ended as unfinished may still get the videos that were left behind. */
    private static boolean isOver(OpenNode test) {
        return test.hasEnded() && !test.outcome.equals(Outcome.UNFINISHED);
    }

    private void letGo(int number, OpenNode test) {
        handOnLast(test);
        if (test.outer != null) test.outer.scope.closes();
        tests.remove(number);
        for (int id : test.scope.ids()) {
            OpenNode named = nodes.get(id);
            if (named != null && named.scope == test.scope) nodes.letGo(id);
        }
    }

    /** What began with that id; null where nothing did. */
    private @Nullable OpenNode begun(int id) {
        OpenNode node = nodes.get(id);
        if (node == null && handingOn instanceof WhenEnded && nodes.isGone(id)) throw new LateLine();
        return node;
    }

    private static void handOnLast(OpenNode node) {
        node.scope.handOnLast();
        node.handOnLast();
    }

    private void put(Event event, int line) {
        lastAt = Math.max(lastAt, event.at());
        if (event instanceof Event.Begins e) begins(e, line);
        else if (event instanceof Event.InScope e) inScope(e, outer(e, line), line);
        else if (event instanceof Event.OfBegun e) ofBegun(e, line);
        else ofTheJournal(event, line);
    }

    private void begins(Event.Begins event, int line) {
        OpenNode outer = outer(event, line);
        var node = new OpenNode(outer, event);
        if (event instanceof StepStarted) {
            within(outer, node);
            node.scope.stepBegan();
        } else {
            outer.scope.opens();
            if (event instanceof TestStarted) {
                if (handingOn instanceof WhenEnded) numbers.put(node, testsBegun);
                tests.put(testsBegun++, node);
            } else {
                containers.add(node);
            }
        }
        named(event.id(), node, line);
    }

    private static void within(OpenNode outer, OpenNode node) {
        outer.add(node);
        node.scope.add(node);
    }

    private void inScope(Event.InScope event, OpenNode outer, int line) {
        if (event instanceof LogWritten e) {
            outer.add(new Entry.LogEntry(moment(e), e.with(whole(e.failure(), line))));
        } else if (event instanceof DataNamed e) {
            outer.add(new Entry.DataEntry(moment(e), e.name(), e.value()));
        } else if (event instanceof CheckMade e) {
            Failure failure = whole(e.failure(), line);
            String actual = failure == null ? e.actual() : failure.actual();
            outer.add(new Entry.CheckEntry(moment(e), e.name(), e.outcome(), failure, e.exchange(), actual));
        } else if (event instanceof ExchangeMade e) {
            outer.lastedUntil(e.at() + e.timing().microsOrZero());
            outer.addWhereItBegan(new Entry.ExchangeEntry(moment(e), e, files(e, line)), e.at());
        } else if (event instanceof AttachmentPending e) {
            pending.put(e.id(), outer);
            outer.scope.waits();
            outer.addPending(e.id(), new Entry.PendingEntry(moment(e), e.name(), e.kind()));
        } else if (event instanceof AttachmentStored e) {
            stored(e, outer, line);
        } else if (event instanceof UnknownEvent e) {
            var node = new OpenNode(outer, e);
            within(outer, node);
            if (e.id() != 0 && !isKnown(e.id())) named(e.id(), node); // its children stay with it
        } else {
            throw new IllegalArgumentException("no reading is known for " + event.getClass());
        }
    }

    private void stored(AttachmentStored e, OpenNode outer, int line) {
        OpenNode waiting = pending.remove(e.pending());
        if (waiting != null) {
            waiting.completed(e.pending());
            waiting.scope.waitsNoMore();
        }
        completed = waiting;
        outer.add(attachment(e, line));
    }

    private void ofBegun(Event.OfBegun event, int line) {
        if (event instanceof StepEnded e) {
            OpenNode step = ending(e, StepStarted.class, line);
            if (step == null) return;
            if (!step.hasEnded()) step.scope.stepEnded();
            step.ended(e.at(), e.outcome(), e.reason(), whole(e.failure(), line));
        } else if (event instanceof StepBudgeted e) {
            OpenNode step = ending(e, StepStarted.class, line);
            if (step != null) step.budget = Duration.ofNanos(e.micros() * 1_000);
        } else if (event instanceof TestEnded e) {
            OpenNode test = ending(e, TestStarted.class, line);
            if (test == null) return;
            test.ended(e.at(), e.outcome(), e.reason(), whole(e.failure(), line));
            test.blockedBy = e.blockedBy();
        } else if (event instanceof ContainerEnded e) {
            OpenNode container = ending(e, ContainerStarted.class, line);
            if (container == null) return;
            container.ended(e.at(), e.outcome(), e.reason(), whole(e.failure(), line));
            container.notRun = e.notRun();
        } else if (event instanceof AboutStated e) {
            about(e, line);
        } else if (event instanceof TestIdentified e) {
            OpenNode test = begun(e.id());
            if (test != null && test.start() instanceof TestStarted start) test.startedAs(start.as(e.key(), e.name()));
            else problems.add(line, "identifies " + e.id() + ", whose beginning is not in this journal");
        } else {
            throw new IllegalArgumentException("no reading is known for " + event.getClass());
        }
    }

    private void ofTheJournal(Event event, int line) {
        if (event instanceof FactStated e) {
            facts.put(e.name(), e.value());
        } else if (event instanceof ProblemMet e) {
            problems.add(line, e.text());
        } else if (event instanceof EventsMissed e) {
            missingByKind = e.byKind();
        } else if (event instanceof JournalEnded e) {
            ended = true;
            missingByKind = e.missingByKind();
            overhead = Duration.ofNanos(e.overhead() * 1_000);
        } else if (event instanceof JournalOpened e) {
            opened(e, line);
        } else {
            throw new IllegalArgumentException("no reading is known for " + event.getClass());
        }
    }

    private void opened(JournalOpened e, int line) {
        opened = e;
        if (e.format() > JournalFormat.VERSION)
            problems.add(
                    line,
                    "the journal has format " + e.format() + " and this reader knows " + JournalFormat.VERSION
                            + ": what is new in it is shown as it is. Read it with a newer Verbale");
    }

    private boolean isKnown(int id) {
        return nodes.isThere(id) || nodes.isGone(id);
    }

    private void named(int id, OpenNode node) {
        if (!(handingOn instanceof AtTheEnd)) node.scope.names(id);
        nodes.put(id, node);
    }

    private void named(int id, OpenNode node, int line) {
        if (isKnown(id)) problems.add(line, "begins " + id + " a second time; what follows is of this one");
        named(id, node);
        EarlyAbout about = early.remove(id);
        if (about != null) node.about = about.about();
    }

    private void about(AboutStated e, int line) {
        OpenNode test = begun(e.id());
        if (test != null) {
            test.about = test.about.and(e.about());
            return;
        }
        EarlyAbout before = early.get(e.id());
        About about = before == null ? About.NOTHING : before.about();
        early.put(e.id(), new EarlyAbout(about.and(e.about()), line));
    }

    private @Nullable Failure whole(@Nullable Failure failure, int line) {
        return failures.whole(failure, what -> problems.add(line, what));
    }

    private OpenNode outer(Event.InScope event, int line) {
        int in = event.in();
        if (in == 0) return run;
        OpenNode outer = begun(in);
        if (outer != null) {
            outer.lastedUntil(event.at());
            return outer;
        }
        problems.add(line, "belongs to " + in + ", whose beginning is not in this journal; it is shown with the run");
        return run;
    }

    private @Nullable OpenNode ending(Event.OfBegun event, Class<? extends Event> kind, int line) {
        int id = event.id();
        OpenNode node = begun(id);
        if (node != null && kind.isInstance(node.start())) {
            node.lastedUntil(event.at());
            return node;
        }
        problems.add(line, "ends " + id + ", whose beginning is not in this journal");
        return null;
    }

    private Map<String, Path> files(ExchangeMade made, int line) {
        Map<String, Path> files = new HashMap<>();
        files(made.request().body(), files, line);
        if (made.response() != null) files(made.response().body(), files, line);
        return files;
    }

    private void files(ExchangeMade.@Nullable Body body, Map<String, Path> files, int line) {
        if (body == null) return;
        for (ExchangeMade.Part part : body.parts()) files(part.body(), files, line);
        if (body.file() == null) return;
        RunFolder.FileInRun stored = folder.file(body.file());
        if (stored.path() != null) files.put(body.file(), stored.path());
        else problems.add(line, "the body '" + body.file() + "' " + stored.why());
    }

    private Entry.AttachmentEntry attachment(AttachmentStored e, int line) {
        RunFolder.FileInRun found = folder.file(e.file().path());
        if (found.path() == null && e.file().leftOut() == null)
            problems.add(line, "the attachment '" + e.file().path() + "' " + found.why());
        Instant begins = e.begins() == 0 ? null : OpenNode.moment(wall(), e.begins());
        return new Entry.AttachmentEntry(moment(e), e.name(), e.kind(), e.file(), found.path(), begins);
    }

    Instant wall() {
        return opened == null ? Instant.EPOCH : opened.wall();
    }

    Instant moment(Event event) {
        return OpenNode.moment(wall(), event.at());
    }

    /** The tests that have no end. */
    List<OpenNode> unfinishedTests() {
        return tests.values().stream()
                .filter(test -> test.outcome.equals(Outcome.UNFINISHED))
                .toList();
    }
}
