package dev.orto.testng;

import static org.hamcrest.Matchers.greaterThan;

import org.testng.IRetryAnalyzer;
import org.testng.ITestResult;
import org.testng.annotations.Test;

public class WeatherTest extends OpenGarden {

    /** The station on the shed is slow in the morning. */
    public static class Once implements IRetryAnalyzer {
        private boolean tried;

        @Override
        public boolean retry(ITestResult result) {
            boolean again = !tried;
            tried = true;
            return again;
        }
    }

    @Test(groups = "api", retryAnalyzer = Once.class)
    public void mayIsWarm() {
        garden().get("/api/weather").then().statusCode(200).body("celsius", greaterThan(10));
    }
}
