<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Symfony\Component\Uid\Uuid;

/** A file at the door: where it lies, what it is called, where it is to go, and what is said about it. */
final readonly class Delivery
{
    /**
     * @param Uuid|null $storey where its drawings go; else $side
     * @param string|null $worldFile text of a world file that came along
     * @param string $origin where it comes from, in words
     * @param string $address of a page on the web or a shelf in the archive
     * @param Uuid|null $replaces the page of which this is a newer version
     * @param bool $mayBeMoved whether nobody needs the file where it lies
     */
    public function __construct(
        public string $path,
        public string $name,
        public ?Uuid $storey,
        public ?Uuid $side = null,
        public ?string $worldFile = null,
        public string $origin = '',
        public string $address = '',
        public ?Uuid $replaces = null,
        public bool $mayBeMoved = false,
    ) {
    }
}
