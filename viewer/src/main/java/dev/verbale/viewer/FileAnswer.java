package dev.verbale.viewer;

import dev.verbale.folder.MediaTypes;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.channels.WritableByteChannel;
import java.nio.file.LinkOption;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A file of a page, or the part of it that was asked for: who looks at a video jumps in it.
 *
 * @see <a href="https://www.rfc-editor.org/rfc/rfc9110#name-range-requests">RFC 9110, Range Requests</a>
 */
final class FileAnswer {

    private static final Pattern RANGE = Pattern.compile("bytes=(\\d{0,18})-(\\d{0,18})");
    private static final Set<OpenOption> NO_LINK = Set.of(StandardOpenOption.READ, LinkOption.NOFOLLOW_LINKS);

    private FileAnswer() {}

    /** @param isAttachment whether a stranger may have made it: then it runs nothing, whatever it is */
    static void send(WebExchange exchange, Path file, boolean isAttachment) throws IOException {
        exchange.set("Content-Type", type(file, isAttachment));
        if (isAttachment)
            exchange.set("Content-Security-Policy", "sandbox; default-src 'none'; frame-ancestors 'none'");
        else if (file.getFileName().toString().equals("index.html"))
            exchange.set("Content-Security-Policy", "frame-ancestors 'none'"); // the page has the rest of its own
        exchange.set("Accept-Ranges", "bytes");
        try (FileChannel in = FileChannel.open(file, NO_LINK)) {
            long size = in.size();
            String asked = exchange.header("Range");
            long[] range = asked == null ? null : range(asked, size);
            if (range == null) {
                body(exchange, 200, in, 0, size);
                return;
            }
            if (range[0] >= size || range[0] > range[1]) {
                exchange.set("Content-Range", "bytes */" + size);
                exchange.answer(416);
                return;
            }
            exchange.set("Content-Range", "bytes " + range[0] + "-" + range[1] + "/" + size);
            body(exchange, 206, in, range[0], range[1] - range[0] + 1);
        }
    }

    private static String type(Path file, boolean isAttachment) {
        String name = file.getFileName().toString();
        if (name.endsWith(".vtt")) return "text/vtt; charset=utf-8";
        String type = MediaTypes.ofFile(name);
        if (!isAttachment) return type.startsWith("text/") ? type + "; charset=utf-8" : type;
        return type.startsWith("image/") && !type.contains("svg") || type.startsWith("video/")
                ? type
                : "text/plain; charset=utf-8";
    }

    /** The first and the last byte; null where all is to be sent, as for several ranges or none that can be read. */
    private static long @Nullable [] range(String asked, long size) {
        Matcher range = RANGE.matcher(asked.strip());
        if (!range.matches()) return null;
        String first = range.group(1);
        String last = range.group(2);
        if (first.isEmpty() && last.isEmpty()) return null;
        if (first.isEmpty()) { // so many from the end
            long count = Long.parseLong(last);
            return count == 0 ? new long[] {size, size} : new long[] {Math.max(0, size - count), size - 1};
        }
        long from = Long.parseLong(first);
        long to = last.isEmpty() ? size - 1 : Long.parseLong(last);
        if (!last.isEmpty() && to < from) return null; // no range at all, by the standard
        return new long[] {from, Math.min(to, size - 1)};
    }

    private static void body(WebExchange exchange, int status, FileChannel in, long from, long length)
            throws IOException {
        if (exchange.method().equals("HEAD")) {
            exchange.set("Content-Length", String.valueOf(length));
            exchange.answer(status);
            return;
        }
        if (length == 0) {
            exchange.answer(status);
            return;
        }
        OutputStream body = exchange.answer(status, length);
        WritableByteChannel out = Channels.newChannel(body);
        ByteBuffer buffer = ByteBuffer.allocate(1 << 16);
        for (long at = from, left = length; left > 0; ) {
            buffer.clear().limit((int) Math.min(buffer.capacity(), left));
            int read = in.read(buffer, at);
            if (read < 0) throw new IOException(in + " became shorter while it was sent");
            buffer.flip();
            while (buffer.hasRemaining()) out.write(buffer);
            at += read;
            left -= read;
        }
    }
}
