package dev.verbale.report;

import dev.verbale.results.Run;
import dev.verbale.results.reason.FailureReason;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Writes pages. The same run gives the same bytes.
 *
 * @since 0.2.0
 */
public final class Page {

    private Page() {}

    /**
     * Writes the page of {@code run} into {@code folder}, made where it is not there. An earlier page in there is replaced
     * as a whole, and only when the new one is complete; what else lies in there stays.
     *
     * @return the file to open
     * @throws FileAlreadyExistsException where {@code folder} holds something that is no page of ours, or that the page has
     *     a file in the place of; it is left alone
     * @throws IOException where something cannot be read or written
     */
    public static Path write(Run run, Path folder, PageOptions options) throws IOException {
        Path target = folder.toAbsolutePath().normalize();
        Path parent = parent(target);
        PageFolder.check(target);
        Files.createDirectories(parent);
        Path fresh = PageFolder.fresh(parent);
        try {
            IndexFile index = writeAll(run, fresh, options);
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(fresh.resolve("index.html")))) {
                index.write(out);
            }
            PageFolder.writeList(fresh);
            PageFolder.replace(target, fresh);
        } finally {
            PageFolder.delete(fresh);
        }
        return folder.resolve("index.html");
    }

    /** The same with nothing but the run. */
    public static Path write(Run run, Path folder) throws IOException {
        return write(run, folder, PageOptions.PLAIN);
    }

    /**
     * Writes the page of {@code run} as one HTML file, for who gets it by mail or as an attachment. It is larger than the folder, and is
     * read as a whole before its last tests can be looked at.
     *
     * @param room how many bytes attachments may have in it: images first, then texts, then videos; one for which there is none left is
     *     named, and not in it
     * @return {@code file}
     * @throws FileAlreadyExistsException where {@code file} is something else than such a page; it is left alone
     * @throws IOException where something cannot be read or written
     */
    public static Path writeSingleFile(Run run, Path file, PageOptions options, long room) throws IOException {
        Path target = file.toAbsolutePath().normalize();
        Path parent = parent(target);
        SingleFile.check(target);
        Files.createDirectories(parent);
        Path fresh = PageFolder.fresh(parent);
        try {
            IndexFile index = writeAll(run, fresh, options);
            new SingleFile(fresh, room).write(index, target);
        } finally {
            PageFolder.delete(fresh);
        }
        return file;
    }

    private static Path parent(Path target) throws IOException {
        Path parent = target.getParent();
        if (parent == null)
            throw new FileAlreadyExistsException(target.toString(), null, "is the root of a file system");
        return parent;
    }

    /** All but the index. */
    private static IndexFile writeAll(Run run, Path folder, PageOptions options) throws IOException {
        List<FailureReason> reasons = FailureReason.of(run);
        Path data = Files.createDirectories(folder.resolve("data"));
        PageContent content = options.content();
        List<Row> rows = Row.of(run, content);
        var attachments = new AttachmentCopier(run, folder, "");
        EarlierRuns earlier = EarlierRuns.of(run, options.history());
        SideBySide.run(List.of(
                () -> new TestFiles(run, rows, attachments, options).write(data),
                () -> {
                    Set<String> briefs = new BriefFiles(run, reasons, options).write(data);
                    new RowFiles(run, rows, reasons, earlier, briefs).write(data);
                    if (earlier != null) EarlierFile.write(earlier, rows, data);
                },
                () -> {
                    var exchanges = new ExchangeFiles(run, rows);
                    exchanges.write(data);
                    BaselineTests before = before(options, rows, folder);
                    if (before != null) before.write(data);
                    FailureTexts.write(rows, content, data);
                    new RunFile(run, rows, reasons, earlier, options).write(exchanges.count(), before, data);
                }));
        return new IndexFile(PlainSummary.of(run, reasons), options.look());
    }

    private static @Nullable BaselineTests before(PageOptions options, List<Row> rows, Path folder) {
        Run baseline = options.baseline();
        if (baseline == null) return null;
        return new BaselineTests(baseline, rows, new AttachmentCopier(baseline, folder, "baseline"), options);
    }
}
