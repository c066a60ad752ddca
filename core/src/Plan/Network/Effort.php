<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

use Plinth\Core\Plan\Network\Exception\TooMuchToDerive;

/**
 * What a derivation may cost: pairs of lines that lie near each other and are held against each other. A plan of 5000 walls takes
 * some hundred thousand; lines that all cross each other take their number squared.
 */
final class Effort
{
    /** pairs between two looks at whether it may go on */
    private const STEP = 4096;

    private int $spent = 0;
    private int $nextLook = self::STEP;

    /**
     * @param \Closure(): void|null $mayGoOn throws when it may not
     */
    public function __construct(private readonly int $most = \PHP_INT_MAX, private readonly ?\Closure $mayGoOn = null)
    {
    }

    /** @throws TooMuchToDerive */
    public function spend(int $pairs): void
    {
        $this->spent += $pairs;
        if ($this->spent > $this->most) {
            throw TooMuchToDerive::pairs($this->most);
        }
        if ($this->spent >= $this->nextLook && null !== $this->mayGoOn) {
            $this->nextLook = $this->spent + self::STEP;
            ($this->mayGoOn)();
        }
    }
}
