package dev.verbale.results;

import dev.verbale.event.AboutStated;
import dev.verbale.event.AttachmentPending;
import dev.verbale.event.AttachmentStored;
import dev.verbale.event.CheckMade;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.Event;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.JournalOpened;
import dev.verbale.event.LogWritten;
import dev.verbale.event.Outcome;
import dev.verbale.event.StepBudgeted;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestIdentified;
import dev.verbale.event.TestStarted;
import dev.verbale.event.UnknownEvent;
import dev.verbale.journal.JournalReader;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * Which tests a journal has, and where the last line of each is: a late attachment may come long after its end. Keeps some bytes a
 * test, and four a step.
 */
final class TestLines implements JournalReader.Listener {

    private static final int NONE = -1;
    private static final int NOT_BEGUN = -2;

    /** Ids count up; one that is larger was not written by a recorder. */
    private static final int LARGEST_ID = 50_000_000;

    private final List<Seen> tests = new ArrayList<>();
    private int[] owners = new int[1_024]; // by id, plus 2
    private final Map<Integer, Integer> oddOwners = new HashMap<>();
    private final Map<Integer, Integer> pending = new HashMap<>();
    private Instant wall = Instant.EPOCH;

    /** A test, as far as it has to be known before it is read. */
    private static final class Seen {
        private final int id;
        private boolean isNamed = true; // until something else has its id
        private final long at;
        private String key;
        private Outcome outcome = Outcome.UNFINISHED;
        private int lastLine;
        private int outer = NONE; // the test that it began in

        private Seen(int id, long at, String key) {
            this.id = id;
            this.at = at;
            this.key = key;
        }
    }

    private TestLines() {}

    /** What cannot be read is left out here: whoever reads the journal whole says so. */
    static TestLines of(Path file) {
        var lines = new TestLines();
        try {
            JournalReader.read(file, lines);
        } catch (IOException unreadable) {
            // until here, then
        }
        lines.owners = new int[0];
        lines.oddOwners.clear();
        return lines;
    }

    int count() {
        return tests.size();
    }

    String key(int test) {
        return tests.get(test).key;
    }

    Outcome outcome(int test) {
        return tests.get(test).outcome;
    }

    Instant started(int test) {
        return OpenNode.moment(wall, tests.get(test).at);
    }

    /** The numbers of all tests, by their last lines; those in others before these. */
    int[] order() {
        return IntStream.range(0, tests.size())
                .boxed()
                .sorted(Comparator.comparingInt((Integer test) -> tests.get(test).lastLine)
                        .thenComparing(Comparator.reverseOrder()))
                .mapToInt(test -> test)
                .toArray();
    }

    int[] lastLines() {
        return tests.stream().mapToInt(test -> test.lastLine).sorted().toArray();
    }

    @Override
    public void unread(int line, String why) {}

    @Override
    public void unknown(int line, String what) {}

    @Override
    public void odd(int line, String what) {}

    @Override
    public void event(Event event, int line) {
        if (event instanceof StepStarted e) {
            own(e.id(), touched(owner(e.in()), line));
        } else if (event instanceof StepEnded e) {
            touched(owner(e.id()), line);
        } else if (event instanceof StepBudgeted e) {
            touched(owner(e.id()), line);
        } else if (event instanceof LogWritten e) {
            touched(owner(e.in()), line);
        } else if (event instanceof DataNamed e) {
            touched(owner(e.in()), line);
        } else if (event instanceof CheckMade e) {
            touched(owner(e.in()), line);
        } else if (event instanceof ExchangeMade e) {
            touched(owner(e.in()), line);
        } else if (event instanceof AboutStated e) {
            touched(owner(e.id()), line);
        } else if (event instanceof AttachmentPending e) {
            pending.put(e.id(), touched(owner(e.in()), line));
        } else if (event instanceof AttachmentStored e) {
            touched(owner(e.in()), line);
            Integer waiting = pending.remove(e.pending());
            if (waiting != null) touched(waiting, line);
        } else if (event instanceof TestStarted e) {
            int outer = touched(owner(e.in()), line);
            tests.add(new Seen(e.id(), e.at(), e.key()));
            tests.get(tests.size() - 1).outer = outer;
            own(e.id(), touched(tests.size() - 1, line));
        } else if (event instanceof TestEnded e) {
            Seen test = test(touched(owner(e.id()), line), e.id());
            if (test != null) test.outcome = e.outcome();
        } else if (event instanceof TestIdentified e) {
            Seen test = test(touched(owner(e.id()), line), e.id());
            if (test != null) test.key = e.key();
        } else if (event instanceof ContainerStarted e) {
            touched(owner(e.in()), line);
            own(e.id(), NONE);
        } else if (event instanceof UnknownEvent e) {
            int owner = touched(owner(e.in()), line);
            if (e.id() != 0 && owner(e.id()) == NOT_BEGUN) own(e.id(), owner);
        } else if (event instanceof JournalOpened e) {
            wall = e.wall();
        }
    }

    /** The test itself, and no step in it. */
    private @Nullable Seen test(int number, int id) {
        if (number < 0) return null;
        Seen test = tests.get(number);
        return test.id == id && test.isNamed ? test : null;
    }

    private int touched(int test, int line) {
        for (int one = test; one >= 0; one = tests.get(one).outer) tests.get(one).lastLine = line;
        return test;
    }

    private int owner(int id) {
        if (id < 0 || id > LARGEST_ID) return oddOwners.getOrDefault(id, NOT_BEGUN);
        return id < owners.length ? owners[id] - 2 : NOT_BEGUN;
    }

    private void own(int id, int test) {
        Seen before = test(owner(id), id);
        if (before != null) before.isNamed = false;
        if (id < 0 || id > LARGEST_ID) {
            oddOwners.put(id, Math.max(NONE, test));
            return;
        }
        if (id >= owners.length) owners = Arrays.copyOf(owners, Math.max(id + 1, owners.length * 2));
        owners[id] = Math.max(NONE, test) + 2;
    }
}
