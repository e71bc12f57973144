package dev.verbale;

import dev.verbale.recorder.Identity;
import dev.verbale.recorder.Recorder;
import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** Records without end, and acknowledges each line on its standard output once the recording call has returned. */
final class Victim {

    private Victim() {}

    public static void main(String[] arguments) {
        int threads = Integer.parseInt(arguments[0]);
        var out = new FileOutputStream(FileDescriptor.out); // unbuffered: an acknowledgement is out when it is written
        for (int number = 0; number < threads; number++) {
            int thread = number;
            new Thread(() -> record(thread, out)).start();
        }
    }

    private static void record(int thread, FileOutputStream out) {
        Recorder recorder = Recorder.current();
        recorder.startTest(recorder.run(), new Identity("victim" + thread, "victim " + thread, null, null, List.of()));
        for (int i = 0; ; i++) {
            String line = thread + ":" + i + ";";
            Verbale.step("step " + i, () -> Verbale.note(line));
            try {
                out.write((line + "\n").getBytes(StandardCharsets.UTF_8));
            } catch (IOException gone) {
                return;
            }
        }
    }
}
