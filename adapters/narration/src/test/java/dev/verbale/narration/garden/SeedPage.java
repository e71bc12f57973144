package dev.verbale.narration.garden;

import dev.verbale.narration.Narrated;
import dev.verbale.narration.Narration;
import java.io.IOException;

/** A page object that nobody can make a subclass of, and a program that uses it. */
public final class SeedPage {

    @Narrated("Sow {0} of {1}")
    String sow(int count, String seed) {
        openThePacket();
        return count + " " + seed;
    }

    @Narrated
    public void openThePacket() {}

    public int countLeftOver() {
        return 0;
    }

    @Narrated(value = "Unlock with {0}", secret = 0)
    void unlock(String code) {}

    @Narrated("Wait")
    private void waitForRain() throws IOException {
        throw new IOException("drought");
    }

    @Override
    public String toString() {
        return "seeds";
    }

    public static void main(String[] arguments) {
        SeedPage page = Narration.of(new SeedPage());
        String sown = page.sow(3, "basil");
        page.unlock("beetroot-42");
        page.countLeftOver();
        try {
            page.waitForRain();
        } catch (IOException drought) {
            System.out.println("sown " + sown + ", " + drought.getMessage());
        }
    }
}
