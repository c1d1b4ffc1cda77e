package rombix.torture;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import rombix.app.show.Session;

/** Runs the trials, prints a table, and exits with 1 where a promise was broken. */
public final class Torture {
    private static final double WHOLE_MINUTES = 30;

    private Torture() {
    }

    /** @param args for how many minutes, 30 where nothing is said; and the names of the trials, all where there are none */
    public static void main(String[] args) throws Exception {
        double minutes = args.length == 0 ? WHOLE_MINUTES : Double.parseDouble(args[0]);
        List<Trial> all = new ArrayList<>(
                List.of(new Kills(), new Endings(), new Signals(), new Peers(), new Boards(), new Floods()));
        all.addAll(Inputs.all());
        all.addAll(List.of(new Announced(), new Presses(), new ReadingFlood()));
        List<String> wanted = List.of(args).subList(Math.min(1, args.length), args.length);
        List<Trial> trials = all.stream().filter(t -> wanted.isEmpty() || wanted.contains(t.name())).toList();
        if (trials.isEmpty()) {
            System.err.println("no trial of that name; there are " + all.stream().map(Trial::name).toList());
            System.exit(2);
        }
        double shares = trials.stream().mapToDouble(Trial::share).sum();
        Session.startToolkit(true);
        System.out.printf("%-22s %9s of %-9s %8s %7s  %s%n", "trial", "tries", "", "breaches", "s", "");
        long broken = 0;
        for (Trial trial : trials) {
            long start = System.nanoTime();
            Budget budget = new Budget(trial.whole(), (long) (TimeUnit.MINUTES.toNanos(1) * minutes * trial.share()
                    / shares));
            Trial.Outcome outcome;
            Thread watchdog = Thread.ofPlatform().daemon().start(() -> watch(trial, minutes));
            try {
                outcome = trial.suffer(budget);
            } catch (Exception | Error e) {
                e.printStackTrace();
                budget.breach("the trial itself ended with " + e);
                outcome = budget.outcome("");
            }
            watchdog.interrupt();
            System.out.printf(Locale.ROOT, "%-22s %9d of %-9d %8d %7.1f  %s%n", trial.name(), outcome.tries(), trial
                    .whole(), outcome.breaches().size(), (System.nanoTime() - start) / 1e9, outcome.figure());
            outcome.breaches().forEach(b -> System.out.println("    " + b));
            broken += outcome.breaches().size();
        }
        System.out.println(broken == 0 ? "Every promise held." : broken + " breaches.");
        System.exit(broken == 0 ? 0 : 1);
    }

    /** Ends all where a trial goes on long after its time: something in it never ends, and that is a breach. */
    private static void watch(Trial trial, double minutes) {
        try {
            Thread.sleep(TimeUnit.MINUTES.toMillis(2) + (long) (TimeUnit.MINUTES.toMillis(1) * minutes));
        } catch (InterruptedException e) {
            return;
        }
        System.out.println("    " + trial.name() + " does not end; what it is at:");
        Thread.getAllStackTraces().forEach((thread, stack) -> {
            if (thread.getState() == Thread.State.RUNNABLE && stack.length > 5) {
                System.out.println("    " + thread.getName());
                List.of(stack).forEach(line -> System.out.println("        " + line));
            }
        });
        System.exit(1);
    }
}
