package dev.verbale.report;

import dev.verbale.folder.MediaTypes;
import java.io.BufferedOutputStream;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Comparator;
import java.util.List;
import java.util.UUID;
import java.util.stream.Stream;
import java.util.zip.DeflaterOutputStream;

/**
 * A page's folder as one file. What would be files beside it are blocks that a browser does not run or draw, each under the name that
 * its file would have: data deflated, as base64, the run's summary as it is, so that it is there at once; images, and what else was
 * attached as far as there is room, as base64. {@code packed.ts} of the page reads them.
 */
final class SingleFile {

    /** Begins every page in one file; what begins otherwise is not ours to replace. */
    private static final String MARK =
            "<!doctype html>\n<!-- A page of Verbale in one file. Written again, it is replaced. -->\n";

    private static final String RUN = "data/run.js";
    private static final byte[] END = "</script>\n".getBytes(StandardCharsets.UTF_8);

    private final Path folder;
    private final long room;

    /** @param room how many bytes attachments may have in it */
    SingleFile(Path folder, long room) {
        this.folder = folder;
        this.room = room;
    }

    /** @throws FileAlreadyExistsException where {@code target} is no page of ours in one file */
    static void check(Path target) throws IOException {
        if (!Files.exists(target, LinkOption.NOFOLLOW_LINKS)) return;
        if (!Files.isRegularFile(target, LinkOption.NOFOLLOW_LINKS))
            throw new FileAlreadyExistsException(target.toString(), null, "is no file, and is left alone");
        byte[] begin;
        try (var in = Files.newInputStream(target)) {
            begin = in.readNBytes(MARK.length());
        }
        if (!new String(begin, StandardCharsets.UTF_8).equals(MARK))
            throw new FileAlreadyExistsException(
                    target.toString(), null, "is no page of Verbale's in one file, and would be lost");
    }

    /** Replaces {@code target} when all of it is written. */
    void write(IndexFile index, Path target) throws IOException {
        Path fresh = target.resolveSibling(".verbale-page-" + UUID.randomUUID());
        try {
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(fresh))) {
                index.writeAlone(out, MARK, this::first, this::blocks);
            }
            Files.move(fresh, target, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(fresh);
        }
    }

    private void blocks(OutputStream out) throws IOException {
        List<Path> data = files("data");
        data.removeIf(file -> !name(file).endsWith(".js") || name(file).equals(RUN));
        data.sort(Comparator.comparing((Path file) -> !name(file).startsWith("data/rows/"))
                .thenComparing(this::name));
        for (Path file : data) {
            begin(out, name(file), "");
            try (OutputStream deflated =
                    new DeflaterOutputStream(Base64.getEncoder().wrap(new Open(out)))) {
                Files.copy(file, deflated);
            }
            out.write(END);
        }
        long left = room;
        List<Path> attachments = files("attachments");
        attachments.sort(Comparator.comparing((Path file) -> rank(name(file))).thenComparing(this::name));
        for (Path file : attachments) {
            long size = Files.size(file);
            if (size > left) continue;
            left -= size;
            begin(out, AttachmentCopier.encoded(name(file)), type(name(file)));
            try (OutputStream base64 = Base64.getEncoder().wrap(new Open(out))) {
                Files.copy(file, base64);
            }
            out.write(END);
        }
    }

    /** Images say most for their size, and videos least. */
    private static int rank(String name) {
        String type = type(name);
        return type.startsWith("image/") ? 0 : type.startsWith("video/") ? 2 : 1;
    }

    /** Only what runs nothing has a type of its own: a page source must not become a page again in this one's origin. */
    private static String type(String name) {
        String type = MediaTypes.ofFile(name);
        if (AttachmentCopier.HARMLESS.contains(type)) return type;
        return name.endsWith(".vtt") ? "text/vtt" : "text/plain;charset=utf-8";
    }

    private List<Path> files(String below) throws IOException {
        Path root = folder.resolve(below);
        if (!Files.isDirectory(root)) return new ArrayList<>();
        try (Stream<Path> all = Files.walk(root)) {
            return new ArrayList<>(all.filter(Files::isRegularFile).toList());
        }
    }

    private String name(Path file) {
        return folder.relativize(file).toString().replace('\\', '/');
    }

    /** In JSON a sign less than stands in texts only, where it can be written as its number. */
    private void first(OutputStream out) throws IOException {
        out.write(("<script type=\"text/plain\" id=\"" + RUN + "\">").getBytes(StandardCharsets.UTF_8));
        out.write(Files.readString(folder.resolve(RUN)).replace("<", "\\u003c").getBytes(StandardCharsets.UTF_8));
        out.write(END);
    }

    /** Names are encoded as addresses are, so that they hold no quote. */
    private static void begin(OutputStream out, String id, String type) throws IOException {
        String begin = "<script type=\"text/plain\" id=\"" + id + "\""
                + (type.isEmpty() ? "" : " data-type=\"" + type + "\"") + ">";
        out.write(begin.getBytes(StandardCharsets.UTF_8));
    }

    /** Stays open when what writes into it is closed: base64 has a last group to write then. */
    private static final class Open extends FilterOutputStream {
        Open(OutputStream out) {
            super(out);
        }

        @Override
        public void write(byte[] bytes, int from, int length) throws IOException {
            out.write(bytes, from, length);
        }

        @Override
        public void close() throws IOException {
            flush();
        }
    }
}
