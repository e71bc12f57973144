package dev.verbale.viewer;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunFolder;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentSkipListMap;
import java.util.concurrent.CopyOnWriteArrayList;
import org.jspecify.annotations.Nullable;

/**
 * The runs of the folder, and what becomes of them: one thread looks for new ones and reads what has grown, for who waits to be told.
 * The newest are looked at again and again, the others once, and when somebody opens them.
 */
final class ViewedRuns implements AutoCloseable {

    private static final int WATCHED = 20;
    private static final long LOOKED_EVERY_MILLIS = 250;

    /** A fifth of one processor at most goes into looking. */
    private static final int REST_BY_COST = 4;

    private final ResultsRoot root;
    private final MadePages pages;
    private final Map<String, ViewedRun> byName = new ConcurrentSkipListMap<>();
    private final Thread watch = new Thread(this::watch, "viewer-watch");

    private final List<Runnable> listeners = new CopyOnWriteArrayList<>();
    private final Object changes = new Object();
    private long changed;
    private boolean isClosed;

    ViewedRuns(ResultsRoot root, MadePages pages) {
        this.root = root;
        this.pages = pages;
        watch.setDaemon(true);
    }

    void start() {
        watch.start();
    }

    /** As the list has them; those that came this moment too. */
    List<ViewedRun> newestFirst() throws IOException {
        findNew();
        List<ViewedRun> runs = new ArrayList<>(byName.values());
        Collections.reverse(runs);
        return runs;
    }

    /** Null where there is none of that name. */
    @Nullable
    ViewedRun find(String name) throws IOException {
        ViewedRun known = byName.get(name);
        if (known == null) {
            findNew();
            known = byName.get(name);
        }
        return known != null && known.folder().exists() ? known : null;
    }

    /**
     * The folder of the page of {@code run}.
     *
     * @param isAsked whether it is to be as the run is now
     */
    Path page(ViewedRun run, boolean isAsked) throws IOException {
        if (isAsked && (run.isNew() || run.look())) change(run);
        return pages.of(run, isAsked);
    }

    /**
     * Waits until something is new, or the time is over.
     *
     * @param since the number of the last change that is known
     */
    void await(long since, long millis) throws InterruptedException {
        synchronized (changes) {
            long until = System.nanoTime() + millis * 1_000_000;
            for (long left = millis; changed <= since && !isClosed && left > 0; ) {
                changes.wait(left);
                left = (until - System.nanoTime()) / 1_000_000;
            }
        }
    }

    /** The runs that changed since the change of that number. */
    List<ViewedRun> changedSince(long since) {
        List<ViewedRun> news = new ArrayList<>();
        for (ViewedRun run : byName.values()) if (run.changed() > since) news.add(run);
        news.sort(Comparator.comparingLong(ViewedRun::changed)); // or what changes meanwhile would be passed over
        return news;
    }

    void onChange(Runnable changed) {
        listeners.add(changed);
    }

    boolean isClosed() {
        synchronized (changes) {
            return isClosed;
        }
    }

    private void change(ViewedRun run) {
        synchronized (changes) {
            run.changed(++changed);
            changes.notifyAll();
        }
        listeners.forEach(Runnable::run);
    }

    private void findNew() throws IOException {
        List<RunFolder> there = root.runs();
        for (RunFolder folder : there) byName.computeIfAbsent(folder.name(), added -> new ViewedRun(folder));
        if (there.size() < byName.size())
            byName.keySet().retainAll(there.stream().map(RunFolder::name).toList());
    }

    private void watch() {
        while (!isClosed()) {
            long from = System.nanoTime();
            try {
                List<ViewedRun> runs = newestFirst();
                for (ViewedRun run : runs.subList(0, Math.min(WATCHED, runs.size()))) look(run);
                look(firstNew(runs));
            } catch (IOException | RuntimeException unreadable) {
                // the folder is away for a moment; it is looked for again
            }
            long cost = (System.nanoTime() - from) / 1_000_000;
            try {
                boolean isBusy = byName.values().stream().anyMatch(ViewedRun::isNew);
                Thread.sleep(isBusy ? cost / REST_BY_COST : Math.max(LOOKED_EVERY_MILLIS, cost * REST_BY_COST));
            } catch (InterruptedException closed) {
                return;
            }
        }
    }

    private static @Nullable ViewedRun firstNew(Collection<ViewedRun> runs) {
        for (ViewedRun run : runs) if (run.isNew()) return run;
        return null;
    }

    private void look(@Nullable ViewedRun run) {
        if (run != null && !isClosed() && run.isRested() && run.look()) change(run);
    }

    @Override
    public void close() {
        synchronized (changes) {
            isClosed = true;
            changes.notifyAll();
        }
        listeners.forEach(Runnable::run);
        watch.interrupt();
    }
}
