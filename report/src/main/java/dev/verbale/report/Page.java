package dev.verbale.report;

import dev.verbale.history.History;
import dev.verbale.results.Run;
import dev.verbale.results.reason.FailureReason;
import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
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

    private static final List<String> OWN_FILES = List.of("index.html", "verbale.css", "verbale.js");

    private Page() {}

    /**
     * Writes the page of {@code run} into {@code folder}, made where it is not there. An earlier page in there is replaced
     * as a whole, and only when the new one is complete; what else lies in there stays.
     *
     * @param baseline a run to compare exchanges with; null for none
     * @param history of earlier runs, for what is new and since when; null for none
     * @return the file to open
     * @throws FileAlreadyExistsException where {@code folder} holds something that is no page of ours, or that the page has
     *     a file in the place of; it is left alone
     * @throws IOException where something cannot be read or written
     */
    public static Path write(Run run, Path folder, @Nullable Run baseline, @Nullable History history)
            throws IOException {
        Path target = folder.toAbsolutePath().normalize();
        Path parent = target.getParent();
        if (parent == null)
            throw new FileAlreadyExistsException(target.toString(), null, "is the root of a file system");
        PageFolder.check(target);
        Files.createDirectories(parent);
        Path fresh = PageFolder.fresh(parent);
        try {
            writeAll(run, fresh, baseline, history);
            PageFolder.writeList(fresh);
            PageFolder.replace(target, fresh);
        } finally {
            PageFolder.delete(fresh);
        }
        return folder.resolve("index.html");
    }

    /** The same without a history. */
    public static Path write(Run run, Path folder, @Nullable Run baseline) throws IOException {
        return write(run, folder, baseline, null);
    }

    /** The same without a baseline either. */
    public static Path write(Run run, Path folder) throws IOException {
        return write(run, folder, null, null);
    }

    private static void writeAll(Run run, Path folder, @Nullable Run baseline, @Nullable History history)
            throws IOException {
        List<FailureReason> reasons = FailureReason.of(run);
        for (String file : OWN_FILES) {
            byte[] bytes = own(file);
            if (file.equals("index.html")) bytes = withPlainSummary(bytes, run, reasons);
            Files.write(folder.resolve(file), bytes);
        }
        Path data = Files.createDirectories(folder.resolve("data"));
        List<Row> rows = Row.of(run);
        var attachments = new AttachmentCopier(run, folder, "");
        EarlierRuns earlier = EarlierRuns.of(run, history);
        SideBySide.run(List.of(
                () -> new TestFiles(run, rows, attachments).write(data),
                () -> {
                    Set<String> briefs = new BriefFiles(run, reasons).write(data);
                    new RowFiles(run, rows, reasons, earlier, briefs).write(data);
                    if (earlier != null) EarlierFile.write(earlier, rows, data);
                },
                () -> {
                    var exchanges = new ExchangeFiles(run, rows);
                    exchanges.write(data);
                    BaselineExchanges before = before(baseline, rows, folder);
                    if (before != null) before.write(data);
                    FailureTexts.write(rows, data);
                    RunFile.write(run, rows, exchanges.count(), before, reasons, earlier, data.resolve("run.js"));
                }));
    }

    private static @Nullable BaselineExchanges before(@Nullable Run baseline, List<Row> rows, Path folder) {
        if (baseline == null) return null;
        return new BaselineExchanges(baseline, rows, new AttachmentCopier(baseline, folder, "baseline"));
    }

    private static byte[] own(String file) throws IOException {
        try (InputStream in = Page.class.getResourceAsStream("page/" + file)) {
            if (in == null) throw new FileNotFoundException("page/" + file + " is missing in this build of Verbale");
            return in.readAllBytes();
        }
    }

    private static byte[] withPlainSummary(byte[] html, Run run, List<FailureReason> reasons) {
        return new String(html, StandardCharsets.UTF_8)
                .replace("<!--plain-->", PlainSummary.of(run, reasons))
                .getBytes(StandardCharsets.UTF_8);
    }
}
