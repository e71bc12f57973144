package dev.verbale;

import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;

/** Records without end, and acknowledges each line on its standard output once the recording call has returned. */
final class Victim {

    private Victim() {}

    public static void main(String[] arguments) throws Exception {
        var out = new FileOutputStream(FileDescriptor.out); // unbuffered: an acknowledgement is out when it is written
        boolean virtual = arguments[0].equals("virtual");
        int threads = virtual ? 8 : Integer.parseInt(arguments[0]);
        for (int number = 0; number < threads; number++) {
            int thread = number;
            Runnable recording = () -> record(thread, out);
            // By reflection: this is compiled for a Java that has none.
            if (virtual)
                Thread.class.getMethod("startVirtualThread", Runnable.class).invoke(null, recording);
            else new Thread(recording).start();
        }
        if (virtual) Thread.sleep(600_000); // they do not keep the JVM alive
    }

    private static void record(int thread, FileOutputStream out) {
        AdapterRecorder recorder = AdapterRecorder.current();
        recorder.startTest(
                recorder.run(),
                TestDescriptor.of("victim" + thread, "victim " + thread).build());
        for (int i = 0; ; i++) {
            String line = thread + ":" + i + ";";
            Verbale.step("step " + i, () -> Verbale.log(line));
            try {
                out.write((line + "\n").getBytes(StandardCharsets.UTF_8));
            } catch (IOException gone) {
                return;
            }
        }
    }
}
