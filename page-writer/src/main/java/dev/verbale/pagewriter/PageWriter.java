package dev.verbale.pagewriter;

import dev.verbale.folder.LastOfRun;
import dev.verbale.folder.RunFolder;
import dev.verbale.report.Page;
import dev.verbale.report.PageOptions;
import dev.verbale.report.PageSettings;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import dev.verbale.spi.Context;
import dev.verbale.spi.RunListener;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/**
 * Writes the page when the last JVM of a run ends, and says where it is, as an address that terminals and editors open by a click.
 * Where a build plugin does that, it is silent.
 *
 * @since 0.2.0
 */
public final class PageWriter implements RunListener {

    /** In the run's folder, as long as somebody records. */
    private static final String LOCK = "writers.lock";

    private volatile @Nullable LastOfRun last;

    /** As {@link java.util.ServiceLoader} makes it. */
    public PageWriter() {}

    @Override
    public void opened(Context context) {
        Path folder = context.folder();
        boolean isElsewhere = System.getProperty("verbale.build.page") != null;
        if (folder != null && !isElsewhere && !rule(context).equals("off")) last = LastOfRun.among(folder, LOCK);
    }

    @Override
    public void ended(Context context) {
        Path folder = context.folder();
        LastOfRun mine = last;
        if (folder == null || mine == null) return;
        try {
            mine.leave(() -> write(context, folder));
        } catch (IOException unreleased) {
            throw new UncheckedIOException(unreleased);
        }
    }

    private static String rule(Context context) {
        return context.setting(PageWriterAdapter.PAGE);
    }

    private static void write(Context context, Path folder) {
        boolean onlyFailures = rule(context).equals("failures");
        try {
            var run = new RunFolder(folder);
            PageOptions options = PageSettings.options(named -> context.setting(PageWriterAdapter.setting(named)));
            // Its attachments are copied while it is read: of a run that has no page for it, only how tests ended.
            if (onlyFailures && isCalm(RunReader.read(folder, TestKeeper.ENDS))) return;
            Path index = Page.write(run, run.page(), options, read -> {
                        for (String reason : Headline.firstReasons(FailureReason.of(read)))
                            System.out.println("  " + reason);
                        return !isEmpty(read);
                    })
                    .index();
            if (index != null)
                System.out.println("Page: " + index.toAbsolutePath().toUri());
        } catch (IOException | IllegalArgumentException unwritten) {
            System.out.println("The page of the run in " + folder + " was not written: " + unwritten);
        }
    }

    private static boolean isCalm(Run run) {
        return run.counts().needingAttention() == 0;
    }

    private static boolean isEmpty(Run run) {
        return run.tests().isEmpty() && run.brokenContainers().isEmpty();
    }
}
