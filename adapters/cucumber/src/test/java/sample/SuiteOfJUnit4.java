package sample;

import io.cucumber.junit.Cucumber;
import io.cucumber.junit.CucumberOptions;
import org.junit.runner.RunWith;

/** The features in JUnit 4. */
@SuppressWarnings("deprecation")
@RunWith(Cucumber.class)
@CucumberOptions(features = "classpath:features", glue = "sample.steps", plugin = "dev.verbale.cucumber.VerbalePlugin")
public class SuiteOfJUnit4 {}
