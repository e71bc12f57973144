package sample;

import io.cucumber.testng.AbstractTestNGCucumberTests;
import io.cucumber.testng.CucumberOptions;

/** The features in TestNG. */
@CucumberOptions(features = "classpath:features", glue = "sample.steps")
public class SuiteOfTestNG extends AbstractTestNGCucumberTests {}
