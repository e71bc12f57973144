package dev.verbale.internal;

import dev.verbale.evidence.EvidenceSource;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** The run, a container or a test: what papers, evidence sources and failures belong to. Steps share their owner's. */
final class Owner {

    /** Enough for a failure that passes through its causes; keeping every failure would grow with a looping test. */
    private static final int SEEN_FAILURES = 16;

    /** What begins outside tests may never be read to its end, in a run that lasts for days. */
    private static final int MOST_OPEN_EXCHANGES = 1_000;

    final @Nullable Owner outer;
    final boolean isTest;
    /** Where the papers would like to go; the store may number it. Nearly every test passes and keeps none. */
    private final Supplier<List<String>> wantedFolder;

    final AtomicInteger papers = new AtomicInteger();
    /** Log lines so far, kept or not. */
    final AtomicInteger logLines = new AtomicInteger();
    /** Where somebody gathers failed checks; null where they fail at once. */
    volatile @Nullable GatheredChecks checks;

    /** What was asked and not answered yet, or not to its end; null until something is, which in most tests is never. */
    private @Nullable Set<OpenExchange> exchanges;

    final List<EvidenceSource> sources = new CopyOnWriteArrayList<>();
    private final Deque<Seen> seen = new ArrayDeque<>(2);
    private @Nullable Path folder;

    Owner(@Nullable Owner outer, boolean isTest, Supplier<List<String>> wantedFolder) {
        this.outer = outer;
        this.isTest = isTest;
        this.wantedFolder = wantedFolder;
    }

    /** The sources to ask when something in here fails: the nearest first. */
    List<EvidenceSource> sourcesToAsk() {
        List<EvidenceSource> all = new ArrayList<>();
        for (Owner owner = this; owner != null; owner = owner.outer)
            for (EvidenceSource source : owner.sources) if (!isIn(all, source)) all.add(source);
        return all;
    }

    void announce(EvidenceSource source) {
        if (!isIn(sources, source)) sources.add(source);
    }

    /** The very same: what {@code equals} says, or throws, is the suite's own affair. */
    private static boolean isIn(List<EvidenceSource> sources, EvidenceSource source) {
        for (EvidenceSource one : sources) if (one == source) return true;
        return false;
    }

    /** Gives the oldest where there are too many: nobody seems to wait for it. */
    synchronized @Nullable OpenExchange begins(OpenExchange exchange) {
        Set<OpenExchange> open = exchanges;
        if (open == null) {
            open = new LinkedHashSet<>();
            exchanges = open;
        }
        open.add(exchange);
        return open.size() <= MOST_OPEN_EXCHANGES ? null : open.iterator().next();
    }

    synchronized void ends(OpenExchange exchange) {
        if (exchanges != null) exchanges.remove(exchange);
    }

    synchronized List<OpenExchange> openExchanges() {
        return exchanges == null ? List.of() : List.copyOf(exchanges);
    }

    /** Whether neither {@code failure} nor what caused it asked for evidence here before; from now on it did. */
    synchronized boolean seesFirst(Throwable failure, Foreign foreign) {
        int depth = 0;
        for (Throwable one = failure; one != null && depth < 20; one = foreign.cause(one), depth++) {
            Seen known = seen(one);
            if (known != null && known.evidence) return false;
        }
        remember(failure).evidence = true;
        return true;
    }

    /** Under which id {@code failure} stands in the journal; 0 where it does not, or nobody remembers. */
    synchronized int written(Throwable failure) {
        Seen known = seen(failure);
        if (known != null && known.id != 0) return known.id;
        return outer == null ? 0 : outer.written(failure);
    }

    synchronized void wrote(Throwable failure, int id) {
        remember(failure).id = id;
    }

    private Seen remember(Throwable failure) {
        Seen known = seen(failure);
        if (known != null) return known;
        if (seen.size() == SEEN_FAILURES) seen.removeFirst();
        var fresh = new Seen(failure);
        seen.addLast(fresh);
        return fresh;
    }

    private @Nullable Seen seen(Throwable failure) {
        for (Seen known : seen) if (known.failure == failure) return known;
        return null;
    }

    private static final class Seen {
        final Throwable failure;
        boolean evidence;
        int id;

        Seen(Throwable failure) {
            this.failure = failure;
        }
    }

    /** The folder of the papers, made by {@code making} at the first call, and where it is gone. */
    synchronized Path folder(FolderMaking making) throws IOException {
        Path made = folder;
        if (made == null || !Files.isDirectory(made)) {
            made = making.make(wantedFolder.get());
            folder = made;
        }
        return made;
    }

    @FunctionalInterface
    interface FolderMaking {
        Path make(List<String> wanted) throws IOException;
    }
}
