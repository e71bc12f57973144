package dev.verbale.results;

import dev.verbale.event.AttachmentPending;
import dev.verbale.event.AttachmentStored;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.Event;
import dev.verbale.event.TestStarted;
import dev.verbale.event.UnknownEvent;
import dev.verbale.journal.JournalReader;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

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

    /** A test, as far as it has to be known before it is read. */
    private static final class Seen {
        private int lastLine;
        private final int outer; // the test that it began in

        private Seen(int outer) {
            this.outer = outer;
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
        if (event instanceof Event.InScope e) inScope(e, touched(owner(e.in()), line), line);
        else if (event instanceof Event.OfBegun e) touched(owner(e.id()), line);
    }

    private void inScope(Event.InScope event, int test, int line) {
        if (event instanceof TestStarted e) {
            tests.add(new Seen(test));
            own(e.id(), touched(tests.size() - 1, line));
        } else if (event instanceof Event.Begins e) {
            own(e.id(), e instanceof ContainerStarted ? NONE : test);
        } else if (event instanceof AttachmentPending e) {
            pending.put(e.id(), test);
        } else if (event instanceof AttachmentStored e) {
            Integer waiting = pending.remove(e.pending());
            if (waiting != null) touched(waiting, line);
        } else if (event instanceof UnknownEvent e && e.id() != 0 && owner(e.id()) == NOT_BEGUN) {
            own(e.id(), test);
        }
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
        if (id < 0 || id > LARGEST_ID) {
            oddOwners.put(id, Math.max(NONE, test));
            return;
        }
        if (id >= owners.length) owners = Arrays.copyOf(owners, Math.max(id + 1, owners.length * 2));
        owners[id] = Math.max(NONE, test) + 2;
    }
}
