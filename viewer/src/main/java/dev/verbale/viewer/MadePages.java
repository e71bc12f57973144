package dev.verbale.viewer;

import dev.verbale.folder.RunFolder;
import dev.verbale.report.Page;
import dev.verbale.report.PageOptions;
import dev.verbale.report.PageProgress;
import dev.verbale.results.RunReader;
import dev.verbale.results.progress.RunProgress;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Pages that were asked for, in a folder of the viewer's own; the last ones are kept. One is made at a time: each takes memory. */
final class MadePages {

    private static final int KEPT = 20;

    private final ViewerOptions.Pages options;
    private final Path folder;
    private final Map<String, Made> made = new LinkedHashMap<>(KEPT, 0.75f, true);
    private final Object making = new Object();
    private int number;

    /** What a page was made of: which change of its run, and what there was beside it. */
    private record Made(long change, long beside) {}

    MadePages(ViewerOptions.Pages options, Path folder) {
        this.options = options;
        this.folder = folder;
    }

    /**
     * The folder of its page.
     *
     * @param isNow whether one that is there has to be as the run is now
     */
    Path of(ViewedRun run, boolean isNow) throws IOException {
        Path page = folder.resolve(run.name());
        long beside = isNow ? options.version(run.folder()) : 0;
        if (isMade(run, isNow, beside)) return page; // while another is made, too
        synchronized (making) {
            if (isMade(run, isNow, beside)) return page;
            var now = new Made(run.changed(), beside);
            write(run, page);
            made(run.name(), now);
        }
        return page;
    }

    private boolean isMade(ViewedRun run, boolean isNow, long beside) {
        synchronized (made) {
            Made known = made.get(run.name());
            return known != null && (!isNow || known.equals(new Made(run.changed(), beside)));
        }
    }

    private void made(String name, Made now) {
        String oldest = null;
        synchronized (made) {
            made.put(name, now);
            if (made.size() > KEPT) {
                oldest = made.keySet().iterator().next();
                made.remove(oldest);
            }
        }
        if (oldest != null) delete(folder.resolve(oldest));
    }

    private void write(ViewedRun run, Path page) throws IOException {
        RunFolder its = run.folder();
        PageOptions beside = options.options(its);
        if (!run.isGoing()) {
            Page.write(its, page, beside, any -> true);
            return;
        }
        long from = System.nanoTime();
        RunProgress progress = RunProgress.of(RunReader.read(its.path()));
        PageProgress going = new PageProgress(progress, options.expected(its), ++number);
        Page.write(progress.ended(), page, progress.isOver() ? beside : beside.withProgress(going));
        run.rest(System.nanoTime() - from);
    }

    /** Removes a folder that was made here, as far as it can be. */
    static void delete(@Nullable Path folder) {
        if (folder == null || !Files.isDirectory(folder)) return;
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path one : all.sorted(Comparator.reverseOrder()).toList()) Files.deleteIfExists(one);
        } catch (IOException inUse) {
            // it lies where the system clears up itself
        }
    }
}
