package dev.verbale.cli;

import picocli.CommandLine.Command;
import picocli.CommandLine.HelpCommand;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** The command without a subcommand. */
@Command(
        name = "verbale",
        description = "Reads recorded test runs.",
        synopsisSubcommandLabel = "COMMAND",
        mixinStandardHelpOptions = true,
        versionProvider = Version.class,
        subcommands = {
            TodayCommand.class,
            PageCommand.class,
            FollowCommand.class,
            ViewCommand.class,
            HubCommand.class,
            SendCommand.class,
            PackCommand.class,
            PublishCommand.class,
            MailCommand.class,
            NotifyCommand.class,
            SealCommand.class,
            VerifyCommand.class,
            FailuresCommand.class,
            RunsCommand.class,
            JoinCommand.class,
            CompareCommand.class,
            TriageCommand.class,
            GateCommand.class,
            RerunCommand.class,
            HistoryCommand.class,
            QueryCommand.class,
            SweepCommand.class,
            ExportCommand.class,
            ImportCommand.class,
            BriefCommand.class,
            HarCommand.class,
            OtlpCommand.class,
            HelpCommand.class
        },
        footerHeading = "%nExamples:%n",
        footer = {
            "  verbale today --since friday     what is new since then, and whose it is",
            "  verbale page                     the page of the newest run in target/verbale",
            "  verbale follow                   a run while it is going",
            "  verbale failures                 what failed in it, in the terminal",
            "  verbale runs modules/shop/target/verbale",
            "  verbale compare                  what is different from the last good run",
            "  verbale har --test SeedsApiTest  their HTTP exchanges, for other tools",
            "",
            "Exit codes: 0 done, 1 a fault in Verbale itself, 2 wrong arguments,",
            "  3 no run that can be read, 4 what was to be written could not be,",
            "  5 the gate is closed, 6 a run is not what was sealed.",
            "Colour is used on a terminal only, and NO_COLOR switches it off.",
            "VERBALE_ROOT names another folder than target/verbale, VERBALE_HISTORY",
            "another one than .verbale/history.",
        })
final class VerbaleCommand implements Runnable {

    @Spec
    private CommandSpec spec;

    @Override
    public void run() {
        throw new ParameterException(
                spec.commandLine(), "Say what to do, such as page, failures or compare. For all of it: verbale help.");
    }
}
