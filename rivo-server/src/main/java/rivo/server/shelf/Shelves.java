package rivo.server.shelf;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import rivo.core.estate.Assignment;
import rivo.core.audience.Audiences;
import rivo.core.audience.UnitRanks;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Follows;
import rivo.core.estate.Release;
import rivo.core.estate.Replacement;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Reason;
import rivo.core.resolve.Resolver.UnitOutcome;
import rivo.core.resolve.TitleOutcomes;
import rivo.core.state.UnitState;
import rivo.devices.protocol.ExitMeaning;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.DeviceClock;
import rivo.server.audience.Names;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.licence.Licences;
import rivo.server.catalogue.title.ChoiceRecord;
import rivo.server.catalogue.title.Chosen;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.SignIns;
import rivo.server.estate.Snapshot;
import rivo.server.fleet.DeviceStanding.DeviceTitle;
import rivo.server.fleet.Fleet;
import rivo.server.request.RequestDocument;
import rivo.server.request.Requests;
import rivo.server.shelf.Shelf.ShelfAsks;
import rivo.server.shelf.Shelf.ShelfChoice;
import rivo.server.shelf.Shelf.ShelfComing;
import rivo.server.shelf.Shelf.ShelfInstalled;
import rivo.server.shelf.Shelf.ShelfOffer;
import rivo.server.shelf.Shelf.ShelfRequest;
import rivo.server.shelf.Shelf.ShelfSeats;
import rivo.server.shelf.Shelf.ShelfValue;
import rivo.server.shelf.Shelf.ShelfDevice;
import rivo.server.web.ApiException;

/** Puts shelves together, each of one snapshot. Costs a resolution of one device. Safe for any number of threads. */
@Component
class Shelves {

    private final Fleet fleet;
    private final Requests requests;

    Shelves(Fleet fleet, Requests requests) {
        this.requests = requests;
        this.fleet = fleet;
    }

    /**
     * @param person the id
     * @param wanted the id of the computer that it is about; null for the one they are signed in on, or used last
     * @param only the id of the one that they may see alone; null for all of theirs
     * @throws ApiException where that is none of theirs
     */
    Shelf of(Snapshot snapshot, String person, @Nullable String wanted, @Nullable String only) {
        Estate estate = snapshot.estate();
        User user = estate.users().find(person);
        List<Device> theirs = devices(snapshot, person).stream().filter(one -> only == null || only.equals(one.id())).toList();
        String name = user == null ? "" : Names.of(user);
        List<ShelfDevice> devices = theirs.stream().map(device -> new ShelfDevice(device.id(), device.name(), isSignedIn(snapshot, device, person))).toList();
        if (theirs.isEmpty() && wanted == null) {
            return new Shelf(name, devices, null, List.of(), List.of(), List.of(), List.of());
        }
        Device device = wanted == null ? theirs.get(0) : among(theirs, wanted);
        return new OnDevice(requests, snapshot, person, device, fleet.standing(snapshot, device)).shelf(name, devices);
    }

    /** @throws ApiException where it is none of theirs */
    static Device theirs(Snapshot snapshot, String person, String device) {
        return among(devices(snapshot, person), device);
    }

    private static Device among(List<Device> theirs, String wanted) {
        return theirs.stream().filter(one -> one.id().equals(wanted)).findFirst()
                .orElseThrow(() -> ApiException.refused(HttpStatus.FORBIDDEN, "not-yours", "This computer is none of yours. Choose one of your own."));
    }

    private static boolean isSignedIn(Snapshot snapshot, Device device, String person) {
        SignIns told = snapshot.get(SignIns.PART).get(device.id());
        return told != null && told.isSignedIn(person);
    }

    /** Their computers: where they are signed in, then where they were last, then by name. */
    private static List<Device> devices(Snapshot snapshot, String person) {
        return snapshot.resolver().audiences().devicesReached(Target.user(person), Follows.USER).stream()
                .mapToObj(position -> snapshot.estate().devices().at(position))
                .sorted(Comparator.comparing((Device device) -> !isSignedIn(snapshot, device, person))
                        .thenComparing((Device device) -> last(snapshot, device, person), Comparator.reverseOrder()).thenComparing(Device::name)).toList();
    }

    private static Instant last(Snapshot snapshot, Device device, String person) {
        SignIns told = snapshot.get(SignIns.PART).get(device.id());
        SignIns.SignIn signIn = told == null ? null : told.find(person);
        return signIn == null ? Instant.EPOCH : signIn.last();
    }

    /** Of one thread. */
    private record OnDevice(Requests requests, Snapshot snapshot, String person, Device device, List<DeviceTitle> standing) {

        Shelf shelf(String name, List<ShelfDevice> devices) {
            List<ShelfOffer> offers = new ArrayList<>();
            List<ShelfComing> coming = new ArrayList<>();
            for (UnitOutcome one : snapshot.resolver().device(device)) {
                if (one.user().isEmpty() || one.user().equals(person)) {
                    if (isOffer(one.decision()) || isWebPage(one) && one.decision().outcome() == Outcome.REQUIRED) {
                        offers.add(offer(one));
                    } else if (isComing(one)) {
                        coming.add(coming(one));
                    }
                }
            }
            standing.stream().filter(this::leaves).forEach(line -> coming.add(leaving(line)));
            offers.sort(Comparator.comparing(ShelfOffer::name, String.CASE_INSENSITIVE_ORDER));
            return new Shelf(name, devices, device.id(), offers, coming, here(), ShelfNotices.of(snapshot, device, person));
        }

        private boolean isTheirs(DeviceTitle line) {
            return line.person() == null || line.person().equals(person);
        }

        /** Whether it was given back and is offered no more: no assignment says anything of it, and still it is removed. */
        private boolean leaves(DeviceTitle line) {
            if (!isTheirs(line) || !"uninstall".equals(line.outcome())) {
                return false;
            }
            Title title = snapshot.estate().title(line.title());
            return title != null && snapshot.resolver().at(title, snapshot.resolver().audiences().unit(title.scope(), device.id(), line.person())) == null;
        }

        private static ShelfComing leaving(DeviceTitle line) {
            return new ShelfComing(line.title(), line.titleName(), null, true, null, false, "waiting".equals(line.group()) ? waitsFor(line) : null, line.line(),
                    line.due(), line.percent());
        }

        private static boolean isOffer(Decision decision) {
            return decision.outcome() == Outcome.AVAILABLE || decision.reason() == Reason.REQUESTED;
        }

        private boolean isWebPage(UnitOutcome one) {
            return snapshot.get(Titles.PART).isWebPage(one.title().id());
        }

        private boolean isComing(UnitOutcome one) {
            boolean acts = one.decision().outcome() == Outcome.REQUIRED || one.decision().outcome() == Outcome.UNINSTALL;
            return acts && !"in-place".equals(line(one).group());
        }

        private DeviceTitle line(UnitOutcome one) {
            return standing.stream().filter(line -> line.title().equals(one.title().id())
                    && Objects.requireNonNullElse(line.person(), "").equals(one.user())).findFirst().orElseThrow();
        }

        private @Nullable String user(UnitOutcome one) {
            return one.user().isEmpty() ? null : one.user();
        }

        private ShelfOffer offer(UnitOutcome one) {
            Title title = one.title();
            TitleRecord record = snapshot.get(Titles.PART).record(title.id());
            Release release = Objects.requireNonNull(one.decision().release());
            ReleaseRecord chosen = snapshot.get(Titles.PART).release(title.id(), release.version());
            VariantRecord variant = chosen == null ? null : chosen.variant(one.decision().variant());
            Chosen values = chosen == null ? Chosen.NOTHING : FixedChoices.on(snapshot, device, one.user(), title.id(), chosen, one.decision().winner());
            long bytes = variant == null ? 0 : values.contents(variant).stream().mapToLong(Contents.Content::size).sum();
            List<Step> steps = variant == null ? List.of() : variant.install();
            RequestDocument request = RequestDocument.find(snapshot, device.id(), title.id(), user(one));
            DeviceTitle line = line(one);
            String state = state(one, line);
            ShelfAsks asks = asks(record, values, Requests.open(snapshot, device.id(), title.id(), user(one)));
            boolean opens = record.isWebPage() && (asks == null || one.decision().outcome() == Outcome.REQUIRED);
            return new ShelfOffer(title.id(), title.name(), record.maker(), record.about().description(), record.about().category(), record.about().icon(),
                    release.version().toString(), opens ? record.about().web() : null, title.scope() == Scope.USER, bytes, steps.stream().mapToInt(Step::limitSeconds).sum() / 60,
                    steps.stream().flatMap(step -> step.exitCodes().stream()).anyMatch(code -> code.meaning() == ExitMeaning.RESTART),
                    takesOff(title, release, user(one)), seats(one), asks, request(request), state,
                    "waiting".equals(state) ? waitsFor(line) : null, line.line(), line.due(), line.percent());
        }

        private String state(UnitOutcome one, DeviceTitle line) {
            boolean leaves = "uninstall".equals(line.outcome());
            if (leaves) {
                return "leaving";
            }
            if (one.decision().outcome() == Outcome.AVAILABLE && !"waiting".equals(line.group())) {
                return line.present() ? "in-place" : "offered";
            }
            return switch (line.group()) {
                case "under-way" -> "under-way";
                case "needs" -> "failed";
                case "in-place" -> "in-place";
                default -> "waiting";
            };
        }

        /** What it waits for, in the words that readers' texts have: anything else is only passed on. */
        private static String waitsFor(DeviceTitle line) {
            UnitState state = Arrays.stream(UnitState.values()).filter(one -> one.word().equals(line.state())).findFirst().orElseThrow();
            return switch (state) {
                case WAITS_SEAT -> "seat";
                case WAITS_SIGN_IN, AFTER_SIGN_IN -> "sign-in";
                case WAITS_DEVICE -> "computer";
                case WAITS_WINDOW -> "window";
                case WAITS_DEADLINE -> "deadline";
                case WAITS_NEED -> "need";
                case WAITS_APPROVAL -> "approval";
                case WAITS_ANSWER -> "answer";
                case AFTER_RESTART -> "restart";
                default -> "other";
            };
        }

        private @Nullable ShelfSeats seats(UnitOutcome one) {
            Integer all = one.title().seats();
            if (all == null) {
                return null;
            }
            TitleOutcomes outcomes = snapshot.resolver().title(one.title());
            return new ShelfSeats(all, Math.max(0, all - outcomes.with(Outcome.REQUIRED).size()),
                    one.decision().outcome() == Outcome.WAITING ? place(one, outcomes.with(Outcome.WAITING)) : null);
        }

        /** Of this one among those who wait, in the order in which seats are given. */
        private Integer place(UnitOutcome one, UnitSet waiting) {
            Audiences audiences = snapshot.resolver().audiences();
            UnitRanks ranks = audiences.ranks(one.title().scope());
            int own = ranks.rankOf(audiences.unit(one.title().scope(), device.id(), user(one)));
            return waiting.filter(unit -> ranks.rankOf(unit) <= own).size();
        }

        private @Nullable ShelfAsks asks(TitleRecord title, Chosen chosen, List<ChoiceRecord> open) {
            boolean licence = Requests.asksForLicence(title);
            String text = title.about().licence();
            List<ShelfChoice> choices = chosen.values().stream().filter(one -> open.contains(one.choice())).map(OnDevice::choice).toList();
            return !licence && !title.asks().approval() && choices.isEmpty() ? null
                    : new ShelfAsks(title.asks().approval(), licence ? text : null, licence ? Licences.hash(text) : null, choices);
        }

        private static ShelfChoice choice(Chosen.Value chosen) {
            ChoiceRecord choice = chosen.choice();
            return new ShelfChoice(choice.id(), choice.words(), choice.kind().isMany(), chosen.value(),
                    choice.valuesToChoose().stream().map(one -> new ShelfValue(one.value(), one.words())).toList());
        }

        private @Nullable ShelfRequest request(@Nullable RequestDocument request) {
            if (request == null || request.isGivenBack() || !request.by().equals(person)) {
                return null;
            }
            RequestDocument.Answer answer = request.answer();
            return new ShelfRequest(request.state(), request.at(), answer == null || answer.words().isEmpty() ? null : answer.words(),
                    answer == null ? null : answer.until());
        }

        /** What is there and has to go for it. */
        private List<String> takesOff(Title title, Release release, @Nullable String user) {
            return device.present().stream().filter(present -> Objects.equals(present.user(), user)).map(present -> snapshot.estate().title(present.title()))
                    .filter(Objects::nonNull).filter(other -> title.conflictsWith().contains(other.id()) || other.conflictsWith().contains(title.id())
                            || release.replaces().stream().map(Replacement::title).anyMatch(other.id()::equals)).map(Title::name).sorted().toList();
        }

        private ShelfComing coming(UnitOutcome one) {
            DeviceTitle line = line(one);
            Assignment winner = one.decision().winner();
            AssignmentDocument document = winner == null ? null : snapshot.get(AssignmentDocument.KIND).find(winner.id());
            Instant by = document == null ? null : DeviceClock.deadline(document.delivery().deadline(), device);
            return new ShelfComing(one.title().id(), one.title().name(), line.to(), one.decision().outcome() == Outcome.UNINSTALL, by, mayBeSooner(one, line),
                    "waiting".equals(line.group()) ? waitsFor(line) : null, line.line(), line.due(), line.percent());
        }

        private boolean mayBeSooner(UnitOutcome one, DeviceTitle line) {
            RequestDocument request = RequestDocument.find(snapshot, device.id(), one.title().id(), user(one));
            return "waiting".equals(line.group()) && (request == null || !request.isSooner())
                    && requests.deadline(snapshot, device.id(), one.title().id(), user(one)) != null;
        }

        private List<ShelfInstalled> here() {
            List<ShelfInstalled> here = new ArrayList<>();
            for (DeviceTitle line : standing) {
                // What leaves for whoever gave it back stands among what is coming, and was not here already.
                if (isTheirs(line) && line.present() && !leaves(line)) {
                    here.add(here(line));
                }
            }
            here.sort(Comparator.comparing(ShelfInstalled::name, String.CASE_INSENSITIVE_ORDER));
            return here;
        }

        private ShelfInstalled here(DeviceTitle line) {
            RequestDocument request = RequestDocument.find(snapshot, device.id(), line.title(), line.person());
            boolean taken = request != null && request.isTaken() && request.by().equals(person);
            Title title = Objects.requireNonNull(snapshot.estate().title(line.title()));
            Decision decision = snapshot.resolver().at(title, snapshot.resolver().audiences().unit(title.scope(), device.id(), line.person()));
            Title by = decision == null || decision.by() == null ? null : snapshot.estate().title(decision.by());
            boolean needed = decision != null && decision.reason() == Reason.IMPLIED && by != null;
            String why = taken ? "taken" : needed ? "needed" : "required".equals(line.outcome()) ? "required" : "found";
            return new ShelfInstalled(line.title(), line.titleName(), line.from(), line.person() != null, why, needed && by != null ? by.name() : null,
                    taken ? request.at() : null);
        }
    }
}
