package dev.verbale.journal.line;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.json.TextFilter;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** A block of lines goes through one parser, and none of them must be read otherwise than alone. */
class LineBlockTest {

    private static final List<String> ODD = List.of(
            "\n",
            "\n\n",
            "\r\n",
            "{",
            "}",
            "[",
            "]",
            "\"",
            ",",
            ":",
            " ",
            "\t",
            "\\",
            "\\u12",
            "{}",
            "{}{}",
            "null",
            "1",
            "\0",
            "\u001f",
            "\uFEFF",
            "ü",
            "\uD83C\uDF31",
            "/*",
            "//",
            "{\"event\":\"log\",\"at\":1,\"text\":\"x\"}",
            "\"at\":2,",
            ",\"mood\":{\"a\":[1,{}]}");

    @Test
    void is_read_as_each_line_alone_whatever_is_in_it() {
        byte[] sound = sound();
        assertThat(inBlock(sound)).isEqualTo(alone(sound)).noneMatch(line -> line.startsWith("refused"));
        var random = new Random(8);
        for (int round = 0; round < (Boolean.getBoolean("verbale.night") ? 3_000 : 150); round++) {
            byte[] bytes = sound;
            for (int i = random.nextInt(4); i >= 0; i--) bytes = mutated(bytes, random);

            assertThat(inBlock(bytes))
                    .as("round %d: %s", round, new String(bytes, StandardCharsets.UTF_8))
                    .isEqualTo(alone(bytes));
        }
    }

    /** Looked up one by one, its names would take hours. */
    @Test
    void an_object_of_many_names_is_read_in_time_that_grows_with_them() {
        var line = new StringBuilder("{\"event\":\"log\",\"at\":1,\"text\":\"x\"");
        for (int i = 0; i < 300_000; i++)
            line.append(",\"n").append(i).append("\":").append(i);
        byte[] bytes = line.append(",\"n7\":0}").toString().getBytes(StandardCharsets.UTF_8);

        EventDecoder.Decoded decoded = new LineBlock(bytes, bytes.length, new KnownPieces()).decode(0, bytes.length);

        assertThat(decoded.unknown()).hasSize(300_000);
        assertThat(decoded.repeated()).containsExactly("n7");
    }

    private static byte[] sound() {
        var out = new ByteArrayOutputStream();
        for (EventCodec<?> codec : EventCodecs.all())
            codec.samples().forEach(event -> {
                out.writeBytes(new EventEncoder(TextFilter.NONE, new RepeatedTexts())
                        .encode(event)
                        .toByteArray());
                if (out.size() > 0 && out.toByteArray()[out.size() - 1] != '\n') out.write('\n');
            });
        return out.toByteArray();
    }

    private static byte[] mutated(byte[] bytes, Random random) {
        int at = random.nextInt(bytes.length);
        int end = Math.min(bytes.length, at + random.nextInt(60));
        byte[] instead = switch (random.nextInt(4)) {
            case 0 -> new byte[] {(byte) random.nextInt(256)};
            case 1 -> new byte[0];
            case 2 -> Arrays.copyOfRange(bytes, at, end); // twice
            default -> ODD.get(random.nextInt(ODD.size())).getBytes(StandardCharsets.UTF_8);
        };
        var out = new ByteArrayOutputStream();
        out.write(bytes, 0, at);
        out.writeBytes(instead);
        int from = random.nextInt(3) == 0 ? end : at;
        out.write(bytes, from, bytes.length - from);
        return out.toByteArray();
    }

    private static List<String> inBlock(byte[] bytes) {
        var block = new LineBlock(bytes, bytes.length, new KnownPieces());
        List<String> all = new ArrayList<>();
        for (int[] line : lines(bytes)) all.add(result(() -> block.decode(line[0], line[1])));
        block.close();
        return all;
    }

    private static List<String> alone(byte[] bytes) {
        List<String> all = new ArrayList<>();
        for (int[] line : lines(bytes)) {
            byte[] copy = Arrays.copyOfRange(bytes, line[0], line[1]);
            all.add(result(() -> EventDecoder.decode(copy, copy.length)));
        }
        return all;
    }

    private static List<int[]> lines(byte[] bytes) {
        List<int[]> lines = new ArrayList<>();
        int from = 0;
        for (int i = 0; i <= bytes.length; i++) {
            if (i < bytes.length && bytes[i] != '\n') continue;
            if (i > from) lines.add(new int[] {from, i});
            from = i + 1;
        }
        return lines;
    }

    private interface Decoding {
        EventDecoder.Decoded decode();
    }

    private static String result(Decoding decoding) {
        try {
            return decoding.decode().toString();
        } catch (MalformedLine refused) {
            return "refused: " + refused.getMessage();
        }
    }
}
