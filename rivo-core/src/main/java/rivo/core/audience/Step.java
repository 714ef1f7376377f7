package rivo.core.audience;

import rivo.core.estate.Scope;

/**
 * From the audiences of one estate to those of a newer one. Immutable; not to be kept, since it holds both.
 *
 * @param devices what has become of the devices
 * @param people what has become of the people
 */
public record Step(Audiences before, Audiences now, Moves devices, Moves people) {

    /**
     * Where the units of a scope are now. Costs nothing where everyone stands where they stood, else for scope user a step
     * for each unit.
     */
    public Moves units(Scope scope) {
        return switch (scope) {
            case DEVICE -> devices;
            case USER -> before.units() == now.units() ? Moves.none(now.units().size())
                    : before.units().movesTo(now.units(), devices, people);
        };
    }
}
