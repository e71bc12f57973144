package dev.verbale.steps.garden;

import dev.verbale.steps.StepMethod;
import dev.verbale.steps.StepMethods;
import java.io.IOException;

/** A page object that nobody can make a subclass of, and a program that uses it. */
public final class SeedPage {

    @StepMethod("Sow {0} of {1}")
    String sow(int count, String seed) {
        openThePacket();
        return count + " " + seed;
    }

    @StepMethod
    public void openThePacket() {}

    public int countLeftOver() {
        return 0;
    }

    @StepMethod(value = "Unlock with {0}", secret = 0)
    void unlock(String code) {}

    @StepMethod("Wait")
    private void waitForRain() throws IOException {
        throw new IOException("drought");
    }

    @Override
    public String toString() {
        return "seeds";
    }

    public static void main(String[] arguments) {
        SeedPage page = StepMethods.of(new SeedPage());
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
