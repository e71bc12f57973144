package dev.verbale.engine.scope;

import dev.verbale.EvidenceSource;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/** What attachments, evidence sources and failures belong to: the run, a container or a test. Steps share that of their test. */
public final class ScopeState {

    /** What begins outside tests may never be read to its end, in a run that lasts for days. */
    private static final int MAX_OPEN = 1_000;

    public final @Nullable ScopeState outer;
    public final boolean isTest;

    /** How many attachments it has so far. */
    public final AtomicInteger attachments = new AtomicInteger();
    /** Log lines so far, kept or not. */
    public final AtomicInteger logLines = new AtomicInteger();
    /** Where somebody gathers failed checks; null where they fail at once. */
    public volatile @Nullable GatheredChecks checks;

    /** How a test ends that threw what its author expects, unless its framework says that it did not pass. */
    public volatile @Nullable TestEnd expected;

    private final List<EvidenceSource> sources = new CopyOnWriteArrayList<>();
    /** Where the attachments would like to go; the store may number it. Nearly every test passes and has none. */
    private final Supplier<List<String>> wantedFolder;
    /** What began and did not end; null until something does, which in most tests is never. */
    private @Nullable Set<OpenUntilScopeEnds> open;

    private @Nullable FailureMemory failures; // most tests have none
    private @Nullable Path folder;

    ScopeState(@Nullable ScopeState outer, boolean isTest, Supplier<List<String>> wantedFolder) {
        this.outer = outer;
        this.isTest = isTest;
        this.wantedFolder = wantedFolder;
    }

    /** What it is, in a sentence. */
    public String word() {
        return isTest ? "test" : outer == null ? "run" : "container";
    }

    /** The sources of evidence that were registered here. */
    public List<EvidenceSource> sources() {
        return sources;
    }

    /** The sources to ask when something in here fails: the nearest first. */
    public List<EvidenceSource> sourcesToAsk() {
        List<EvidenceSource> all = new ArrayList<>();
        for (ScopeState state = this; state != null; state = state.outer)
            for (EvidenceSource source : state.sources) if (!isIn(all, source)) all.add(source);
        return all;
    }

    public void register(EvidenceSource source) {
        if (!isIn(sources, source)) sources.add(source);
    }

    /** {@code source} is asked no more, and not told that this ends: whoever ended it knows. */
    public void unregister(EvidenceSource source) {
        sources.removeIf(one -> one == source);
    }

    /** The very same: what {@code equals} says, or throws, is the suite's own affair. */
    private static boolean isIn(List<EvidenceSource> sources, EvidenceSource source) {
        for (EvidenceSource one : sources) if (one == source) return true;
        return false;
    }

    /** Gives the oldest where there are too many: nobody seems to wait for it. */
    public synchronized @Nullable OpenUntilScopeEnds begins(OpenUntilScopeEnds one) {
        Set<OpenUntilScopeEnds> all = open;
        if (all == null) {
            all = new LinkedHashSet<>();
            open = all;
        }
        all.add(one);
        return all.size() <= MAX_OPEN ? null : all.iterator().next();
    }

    public synchronized void ends(OpenUntilScopeEnds one) {
        if (open != null) open.remove(one);
    }

    /** Ends what is open still. */
    public void endOpen() {
        List<OpenUntilScopeEnds> all;
        synchronized (this) {
            all = open == null ? List.of() : List.copyOf(open);
        }
        for (OpenUntilScopeEnds one : all) one.scopeEnds();
    }

    /**
     * Whether neither {@code failure} nor what caused it asked for evidence here before; from now on it did.
     *
     * @param cause gives what caused a throwable
     */
    public boolean seesFirst(Throwable failure, UnaryOperator<@Nullable Throwable> cause) {
        return failures().seesFirst(failure, cause);
    }

    /** Under which id {@code failure} stands in the journal; 0 where it does not, or nobody remembers. */
    public int written(Throwable failure) {
        for (ScopeState state = this; state != null; state = state.outer) {
            FailureMemory known = state.failuresOrNull();
            int id = known == null ? 0 : known.written(failure);
            if (id != 0) return id;
        }
        return 0;
    }

    /** From now on {@code failure} stands in the journal under {@code id}. */
    public void wrote(Throwable failure, int id) {
        failures().wrote(failure, id);
    }

    private synchronized @Nullable FailureMemory failuresOrNull() {
        return failures;
    }

    private synchronized FailureMemory failures() {
        FailureMemory known = failures;
        if (known != null) return known;
        var fresh = new FailureMemory();
        failures = fresh;
        return fresh;
    }

    /** The folder of the attachments, made by {@code making} at the first call, and where it is gone. */
    public synchronized Path folder(FolderMaking making) throws IOException {
        Path made = folder;
        if (made == null || !Files.isDirectory(made)) {
            made = making.make(wantedFolder.get());
            folder = made;
        }
        return made;
    }

    /** Makes a folder of a name like the one that is wanted. */
    @FunctionalInterface
    public interface FolderMaking {
        Path make(List<String> wanted) throws IOException;
    }
}
