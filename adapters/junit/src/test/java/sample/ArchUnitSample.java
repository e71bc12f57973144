package sample;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** Rules of ArchUnit. */
@AnalyzeClasses(packagesOf = ArchUnitSample.class)
public class ArchUnitSample {

    @ArchTest
    static final ArchRule SAMPLES_ARE_SAMPLES =
            classes().that().haveSimpleName("JqwikSample").should().bePublic();

    @ArchTest
    static void nothingIsPrivate(JavaClasses classes) {
        classes().should().bePrivate().check(classes);
    }
}
