package rombix.core.event;

/** What presses do: nothing, as the board is edited; work twins; work the gear. */
public enum Mode {
    BUILD, REHEARSE, LIVE
}
