package rombix.wire.line;

/** A checksum over bytes. */
public enum Checksum {
    NONE, SUM, XOR, CRC_16;

    private static final int CRC_16_START = 0xFFFF;
    private static final int CRC_16_MIRRORED = 0xA001;

    /** By its name: {@code none}, {@code sum}, {@code xor}, {@code crc-16}; none for any other. */
    public static Checksum of(String name) {
        return switch (name) {
            case "sum" -> SUM;
            case "xor" -> XOR;
            case "crc-16" -> CRC_16;
            default -> NONE;
        };
    }

    /**
     * What stands behind the bytes: nothing, the lowest byte of their sum, all of them XORed, or CRC-16 with the
     * polynomial 0x8005 mirrored, from 0xFFFF on, the lower byte first.
     */
    public byte[] of(byte[] bytes) {
        int sum = this == CRC_16 ? CRC_16_START : 0;
        for (byte b : bytes) {
            sum = switch (this) {
                case NONE -> 0;
                case SUM -> sum + (b & 0xFF);
                case XOR -> sum ^ b & 0xFF;
                case CRC_16 -> mirrored(sum ^ b & 0xFF);
            };
        }
        return switch (this) {
            case NONE -> new byte[0];
            case SUM, XOR -> new byte[]{(byte) sum};
            case CRC_16 -> new byte[]{(byte) sum, (byte) (sum >> 8)};
        };
    }

    private static int mirrored(int from) {
        int crc = from;
        for (int bit = 0; bit < 8; bit++) {
            crc = (crc & 1) == 0 ? crc >>> 1 : crc >>> 1 ^ CRC_16_MIRRORED;
        }
        return crc;
    }
}
