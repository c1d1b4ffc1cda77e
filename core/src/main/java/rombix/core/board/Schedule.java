package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.time.DayOfWeek;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.time.format.DateTimeParseException;
import java.time.format.TextStyle;
import java.time.temporal.ChronoUnit;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * When a clock presses, as files write it: {@code 2026-12-24T21:30}, once; {@code 21:30} or {@code Fri,Sat 21:30}, every
 * day or on some; {@code every 15 min}, counted from midnight. Local times: one that a change of the clocks skips is
 * taken later by as much as is skipped, one that it repeats is taken the first time.
 */
public sealed interface Schedule {
    /** The first time after a moment; empty where there is none any more. */
    Optional<ZonedDateTime> after(ZonedDateTime moment);

    /** In words. */
    String words();

    /** As files write it. */
    @JsonValue
    String text();

    /** Once. */
    record Once(LocalDateTime at) implements Schedule {
        @Override
        public Optional<ZonedDateTime> after(ZonedDateTime moment) {
            return Optional.of(at.atZone(moment.getZone())).filter(t -> t.isAfter(moment));
        }

        @Override
        public String words() {
            return "once, at " + at.toLocalTime() + " on " + at.toLocalDate();
        }

        @Override
        public String text() {
            return at.toString();
        }
    }

    /** At a time of some days of the week. */
    record Weekly(Set<DayOfWeek> days, LocalTime time) implements Schedule {
        public Weekly {
            days = Set.copyOf(days);
        }

        @Override
        public Optional<ZonedDateTime> after(ZonedDateTime moment) {
            for (int i = 0; i <= 8; i++) {
                ZonedDateTime t = moment.toLocalDate().plusDays(i).atTime(time).atZone(moment.getZone())
                        .withEarlierOffsetAtOverlap();
                if (t.isAfter(moment) && days.contains(t.getDayOfWeek())) {
                    return Optional.of(t);
                }
            }
            return Optional.empty();
        }

        @Override
        public String words() {
            return days.size() == 7 ? "every day at " + time : names(", ") + " at " + time;
        }

        private String names(String between) {
            return days.stream().sorted().map(d -> d.getDisplayName(TextStyle.SHORT, Locale.ENGLISH)).collect(Collectors
                    .joining(between));
        }

        @Override
        public String text() {
            return days.size() == 7 ? time.toString() : names(",") + " " + time;
        }
    }

    /** Every so many minutes, counted from midnight. */
    record Every(int minutes) implements Schedule {
        public Every {
            if (minutes < 1 || minutes > 24 * 60) {
                throw new IllegalArgumentException("a clock presses every 1 to 1440 minutes");
            }
        }

        @Override
        public Optional<ZonedDateTime> after(ZonedDateTime moment) {
            ZonedDateTime midnight = moment.truncatedTo(ChronoUnit.DAYS);
            long gone = ChronoUnit.MINUTES.between(midnight, moment) / minutes;
            ZonedDateTime next = midnight.plusMinutes((gone + 1) * minutes);
            ZonedDateTime tomorrow = midnight.plusDays(1);
            return Optional.of(next.isAfter(tomorrow) ? tomorrow : next);
        }

        @Override
        public String words() {
            return "every " + (minutes == 1 ? "minute" : minutes + " minutes");
        }

        @Override
        public String text() {
            return "every " + minutes + " min";
        }
    }

    /** From a file. Throws IllegalArgumentException with what it should look like. */
    @JsonCreator
    static Schedule of(String text) {
        String plain = Objects.requireNonNull(text, "a clock needs an \"at\"").strip();
        Matcher every = Pattern.compile("every (\\d{1,4}) min(utes)?").matcher(plain);
        try {
            if (every.matches()) {
                return new Every(Integer.parseInt(every.group(1)));
            }
            if (plain.indexOf('T') > 0 && Character.isDigit(plain.charAt(0))) {
                return new Once(LocalDateTime.parse(plain));
            }
            int space = plain.lastIndexOf(' ');
            return new Weekly(space < 0 ? EnumSet.allOf(DayOfWeek.class) : days(plain.substring(0, space)), LocalTime
                    .parse(plain.substring(space + 1)));
        } catch (DateTimeParseException e) {
            throw new IllegalArgumentException("“" + text + "” is not a time; write 21:30, Fri,Sat 21:30,"
                    + " 2026-12-24T21:30 or every 15 min", e);
        }
    }

    private static Set<DayOfWeek> days(String names) {
        Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
        for (String name : names.split("[, ]+")) {
            DayOfWeek day = Set.of(DayOfWeek.values()).stream()
                    .filter(d -> name.length() > 1 && d.name().startsWith(name.toUpperCase(Locale.ROOT))).findFirst()
                    .orElseThrow(() -> new IllegalArgumentException("“" + name + "” is not a day; write Mon, Tue, Wed,"
                            + " Thu, Fri, Sat or Sun"));
            days.add(day);
        }
        return days;
    }
}
