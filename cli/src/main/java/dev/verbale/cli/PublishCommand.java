package dev.verbale.cli;

import dev.verbale.folder.RunFolder;
import dev.verbale.publishing.Site;
import dev.verbale.publishing.SiteStore;
import dev.verbale.report.PageOptions;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.RunReader;
import dev.verbale.rules.yaml.YamlFormatException;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** A run's page where anyone can read it. */
@Command(
        name = "publish",
        description = "Puts the page of a run into a static site with an index of runs.",
        mixinStandardHelpOptions = true,
        footer = {"  verbale publish --to site", "  verbale publish --to s3://runs.orto.example/nightly --keep 100"})
final class PublishCommand implements Callable<Integer> {

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(
            names = "--to",
            paramLabel = "SITE",
            required = true,
            description = {
                "A folder, or s3://BUCKET/PREFIX",
                "What others put there is left alone. The storage is known by AWS_ENDPOINT_URL_S3, AWS_REGION, AWS_ACCESS_KEY_ID and their kin."
            })
    private String target = "";

    @Option(
            names = "--keep",
            paramLabel = "N",
            defaultValue = "50",
            description = {"How many runs the site has (${DEFAULT-VALUE})", "Beside the newest of each branch."})
    private int keep;

    @Mixin
    private final PageLookOption look = new PageLookOption();

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (keep < 1) throw wrong("--keep takes a number from 1, not " + keep);
        if (target.matches("https?://.*"))
            throw wrong("--to takes a folder or s3://BUCKET/PREFIX. A run goes to a hub by: verbale hub send --hub "
                    + target);
        RunFolder folder = RunReader.find(run.path());
        PageOptions options = options(folder);
        PrintWriter out = spec.commandLine().getOut();
        try (SiteStore store = SiteStore.of(target)) {
            String title = options.look().title() == null
                    ? "Test runs"
                    : options.look().title();
            Site.Published published = new Site(store, title, keep).publish(folder, options);
            out.println("Published: " + store.address(published.page() + "index.html") + ", " + published.files()
                    + (published.files() == 1 ? " file, " : " files, ") + published.sent() + " of them sent");
            for (String gone : published.gone()) out.println("No longer there: " + gone);
        } catch (IllegalArgumentException wrong) {
            throw wrong(String.valueOf(wrong.getMessage()));
        } catch (ResultsFormatException unreadable) {
            throw unreadable;
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("the run was not published to " + target, failed);
        }
        return ExitCodes.DONE;
    }

    private PageOptions options(RunFolder folder) throws IOException, YamlFormatException {
        try {
            return look.options()
                    .withRules(rules.read().triage())
                    .withEarlier(history.earlier(folder, spec.commandLine().getErr()));
        } catch (IllegalArgumentException wrong) {
            throw wrong(String.valueOf(wrong.getMessage()));
        }
    }

    private ParameterException wrong(String why) {
        return new ParameterException(spec.commandLine(), why);
    }
}
