package dev.orto.testng;

import static io.restassured.RestAssured.given;

import dev.orto.GardenServer;
import dev.orto.web.Orto;
import dev.verbale.restassured.VerbaleFilter;
import io.restassured.specification.RequestSpecification;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;

/** A fresh garden for each test. */
abstract class OpenGarden {

    private final ThreadLocal<Orto> garden = new ThreadLocal<>();

    @BeforeMethod(alwaysRun = true)
    public void open_the_garden() {
        garden.set(GardenServer.open());
    }

    @AfterMethod(alwaysRun = true)
    public void close_the_garden() {
        garden.get().close();
    }

    RequestSpecification garden() {
        return given().filter(new VerbaleFilter().recordingChecks())
                .baseUri(garden.get().address().toString())
                .contentType("application/json");
    }
}
