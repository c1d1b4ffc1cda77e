package rombix.torture;

import java.lang.management.ManagementFactory;
import java.lang.management.MemoryMXBean;

/** What is on the heap once all is gone that nobody holds. */
final class Heap {
    private static final MemoryMXBean MEMORY = ManagementFactory.getMemoryMXBean();

    private Heap() {
    }

    /** In MB. */
    static double held() {
        for (int i = 0; i < 3; i++) {
            System.gc();
        }
        return MEMORY.getHeapMemoryUsage().getUsed() / (double) (1 << 20);
    }
}
