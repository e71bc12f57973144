package dev.verbale.internal;

import dev.verbale.evidence.EvidenceSource;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** The run, a container or a test: what papers, evidence sources and failures belong to. Steps share their owner's. */
final class Owner {

    /** Enough for a failure that passes through its causes; keeping every failure would grow with a looping test. */
    private static final int SEEN_FAILURES = 8;

    final @Nullable Owner outer;
    final boolean isTest;
    /** Where the papers would like to go; the store may number it. Nearly every test passes and keeps none. */
    private final Supplier<Path> wantedFolder;

    final AtomicInteger papers = new AtomicInteger();
    /** Log lines so far, kept or not. */
    final AtomicInteger logLines = new AtomicInteger();
    /** Where somebody gathers failed checks; null where they fail at once. */
    volatile @Nullable GatheredChecks checks;

    /** What was asked and not answered yet, or not to its end; null until something is, which in most tests is never. */
    private @Nullable Set<OpenExchange> exchanges;

    final List<EvidenceSource> sources = new CopyOnWriteArrayList<>();
    private final Deque<Throwable> seen = new ArrayDeque<>(SEEN_FAILURES);
    private @Nullable Path folder;

    Owner(@Nullable Owner outer, boolean isTest, Supplier<Path> wantedFolder) {
        this.outer = outer;
        this.isTest = isTest;
        this.wantedFolder = wantedFolder;
    }

    /** The sources to ask when something in here fails: the nearest first. */
    List<EvidenceSource> sourcesToAsk() {
        List<EvidenceSource> all = new ArrayList<>();
        for (Owner owner = this; owner != null; owner = owner.outer)
            for (EvidenceSource source : owner.sources) if (!all.contains(source)) all.add(source);
        return all;
    }

    void announce(EvidenceSource source) {
        if (!sources.contains(source)) sources.add(source);
    }

    synchronized void begins(OpenExchange exchange) {
        Set<OpenExchange> open = exchanges;
        if (open == null) {
            open = new HashSet<>();
            exchanges = open;
        }
        open.add(exchange);
    }

    synchronized void ends(OpenExchange exchange) {
        if (exchanges != null) exchanges.remove(exchange);
    }

    synchronized List<OpenExchange> openExchanges() {
        return exchanges == null ? List.of() : List.copyOf(exchanges);
    }

    /** Whether neither {@code failure} nor what caused it was seen here before; from now on it was. */
    synchronized boolean seesFirst(Throwable failure) {
        int depth = 0;
        for (Throwable one = failure; one != null && depth < 20; one = cause(one), depth++) {
            for (Throwable known : seen) if (known == one) return false;
        }
        if (seen.size() == SEEN_FAILURES) seen.removeFirst();
        seen.addLast(failure);
        return true;
    }

    private static @Nullable Throwable cause(Throwable thrown) {
        try {
            return thrown.getCause();
        } catch (RuntimeException broken) {
            return null; // an exception class of the suite's own may do anything here
        }
    }

    /** The folder of the papers, made by {@code making} at the first call. */
    synchronized Path folder(FolderMaking making) throws IOException {
        Path made = folder;
        if (made == null) {
            made = making.make(wantedFolder.get());
            folder = made;
        }
        return made;
    }

    @FunctionalInterface
    interface FolderMaking {
        Path make(Path wanted) throws IOException;
    }
}
