package rivo.core.audience;

import org.jspecify.annotations.Nullable;
import rivo.core.estate.Scope;

/** From the audiences of one estate to those of another. Not to be kept, since it holds both. Of one thread. */
public final class Step {

    private final Audiences before;
    private final Audiences now;
    private final Moves devices;
    private final Moves people;
    private @Nullable Moves personUnits;

    /**
     * @param devices what has become of the devices
     * @param people what has become of the people
     */
    Step(Audiences before, Audiences now, Moves devices, Moves people) {
        this.before = before;
        this.now = now;
        this.devices = devices;
        this.people = people;
    }

    /** Between any two. Costs a comparison of references for each device and person, and a look-up for each that differs. */
    public static Step between(Audiences before, Audiences now) {
        return new Step(before, now, Moves.between(before.estate().devices(), now.estate().devices()),
                Moves.between(before.estate().users(), now.estate().users()));
    }

    public Audiences before() {
        return before;
    }

    public Audiences now() {
        return now;
    }

    /** What has become of the devices. */
    public Moves devices() {
        return devices;
    }

    /**
     * Where the units of a scope are now. Costs nothing where everyone stands where they stood, else for scope user a step
     * for each unit, once.
     */
    public Moves units(Scope scope) {
        return switch (scope) {
            case DEVICE -> devices;
            case USER -> personUnits();
        };
    }

    private Moves personUnits() {
        Moves known = personUnits;
        if (known == null) {
            known = before.units() == now.units() ? Moves.none(now.units().size())
                    : before.units().movesTo(now.units(), devices, people);
            personUnits = known;
        }
        return known;
    }

    /**
     * The devices, at their new positions, for which anything that assignments ask of audiences may be different. Both
     * estates are of the same time.
     */
    public Positions affected() {
        return new Affected(before, now.estate(), now.groups(), now.units(), devices, people)
                .byAnything(before.rules(), now.rules());
    }
}
