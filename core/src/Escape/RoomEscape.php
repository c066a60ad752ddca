<?php

declare(strict_types=1);

namespace Plinth\Core\Escape;

use Plinth\Core\Plan\Derivation\Region;

/** How one gets out of a room from the worst place of it. */
final readonly class RoomEscape
{
    /**
     * @param EscapeRoute|null $toExit from the place from which it is furthest to the next exit; null where there is no way
     * @param EscapeRoute|null $toFinal from the place from which it is furthest to the next final exit
     * @param SecondWay|null $second from where the way to the next exit begins; null where there is no other exit, or too many
     * @param bool $openAbove whether the next floor above is open over it
     */
    public function __construct(
        public string $storey,
        public Region $region,
        public ?EscapeRoute $toExit,
        public ?EscapeRoute $toFinal,
        public ?SecondWay $second = null,
        public bool $openAbove = false,
    ) {
    }
}
