package dev.orto.testng;

import static org.hamcrest.Matchers.equalTo;

import dev.verbale.Verbale;
import io.restassured.response.ValidatableResponse;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

@Test(groups = {"api", "seeds"})
public class SeedLibraryTest extends OpenGarden {

    @DataProvider(parallel = true)
    public static Object[][] stock() {
        return new Object[][] {{"Basil", 4}, {"Borage", 2}, {"Kale", 1}};
    }

    @Test(dataProvider = "stock", description = "A loan takes one sachet out of the drawer")
    public void lendsASachet(String seed, int before) {
        Verbale.step("Ada borrows a sachet of " + seed, () -> lend(seed, "Ada").statusCode(201));

        garden().get("/api/seeds/{seed}", seed).then().body("sachets", equalTo(before - 1));
    }

    @Test(dependsOnMethods = "lendsASachet")
    public void nobodyBorrowsWhatIsLent() {
        lend("Kale", "Ada").statusCode(201);

        lend("Kale", "Bruno").statusCode(409).body("error", equalTo("No sachet of Kale is left"));
    }

    public void takesASachetBack() {
        lend("Basil", "Chiara").statusCode(201);

        garden().delete("/api/seeds/Basil/loans/Chiara").then().statusCode(200).body("sachets", equalTo(4));
    }

    private ValidatableResponse lend(String seed, String neighbour) {
        return garden().body(Map.of("neighbour", neighbour))
                .post("/api/seeds/{seed}/loans", seed)
                .then();
    }
}
