package dev.verbale.video;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;

/**
 * Pieces of a Matroska file (RFC 9559) of JPEG frames: a head, and a cluster for each frame. It has no end that must be
 * written, so that what is there can be played whenever the writing stops.
 */
final class Matroska {

    private static final int EBML = 0x1A45DFA3;
    private static final int SEGMENT = 0x18538067;
    private static final int INFO = 0x1549A966;
    private static final int TRACKS = 0x1654AE6B;
    private static final int CLUSTER = 0x1F43B675;
    private static final int NANOS_A_TICK = 1_000_000; // so that times are in milliseconds

    private Matroska() {}

    /** The beginning of a video of frames of this size in pixels. */
    static byte[] head(int width, int height) throws IOException {
        var file = new Element();
        file.master(
                EBML,
                new Element()
                        .number(0x4286, 1) // EBMLVersion
                        .number(0x42F7, 1) // EBMLReadVersion
                        .number(0x42F2, 4) // EBMLMaxIDLength
                        .number(0x42F3, 8) // EBMLMaxSizeLength
                        .text(0x4282, "matroska") // DocType
                        .number(0x4287, 4) // DocTypeVersion
                        .number(0x4285, 2)); // DocTypeReadVersion
        file.id(SEGMENT).unknownSize();
        file.master(
                INFO,
                new Element()
                        .number(0x2AD7B1, NANOS_A_TICK) // TimestampScale
                        .text(0x4D80, "Verbale") // MuxingApp
                        .text(0x5741, "Verbale")); // WritingApp
        file.master(
                TRACKS,
                new Element()
                        .master(
                                0xAE,
                                new Element() // TrackEntry
                                        .number(0xD7, 1) // TrackNumber
                                        .number(0x73C5, 1) // TrackUID
                                        .number(0x9C, 0) // FlagLacing
                                        .number(0x83, 1) // TrackType: video
                                        .text(0x86, "V_MJPEG") // CodecID
                                        .master(
                                                0xE0,
                                                new Element()
                                                        .number(0xB0, width)
                                                        .number(0xBA, height)))); // Video
        return file.bytes();
    }

    /** A frame that is shown from {@code millis} on. */
    static byte[] frame(long millis, byte[] jpeg) throws IOException {
        var block = new ByteArrayOutputStream(jpeg.length + 4);
        block.write(0x81); // track 1
        block.write(0); // at the cluster's own time, two bytes
        block.write(0);
        block.write(0x80); // a key frame
        block.write(jpeg);
        return new Element()
                .master(CLUSTER, new Element().number(0xE7, millis).binary(0xA3, block.toByteArray()))
                .bytes();
    }

    /** EBML (RFC 8794): an id, a size and a content, again and again. */
    private static final class Element {
        private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        private final DataOutputStream out = new DataOutputStream(bytes);

        Element id(int id) throws IOException {
            for (int shift = 24; shift >= 0; shift -= 8) if (id >>> shift != 0) out.writeByte(id >>> shift);
            return this;
        }

        Element unknownSize() throws IOException {
            out.writeLong(0x01FFFFFFFFFFFFFFL);
            return this;
        }

        Element number(int id, long value) throws IOException {
            id(id).out.writeByte(0x88);
            out.writeLong(value);
            return this;
        }

        Element text(int id, String value) throws IOException {
            return binary(id, value.getBytes(StandardCharsets.US_ASCII));
        }

        Element master(int id, Element content) throws IOException {
            return binary(id, content.bytes());
        }

        Element binary(int id, byte[] content) throws IOException {
            id(id).out.writeLong(0x01L << 56 | content.length);
            out.write(content);
            return this;
        }

        byte[] bytes() {
            return bytes.toByteArray();
        }
    }
}
