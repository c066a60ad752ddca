<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\RowValues;
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
    ) {
    }

    /** @return array<string, string|null> all but where it lies */
    public function toArray(): array
    {
        return [
            'storey' => $this->storey?->toRfc4122(), 'side' => $this->side?->toRfc4122(), 'worldFile' => $this->worldFile, 'origin' => $this->origin, 'address' => $this->address, 'replaces' => $this->replaces?->toRfc4122(),
        ];
    }

    /** @param array<string, string|null> $data */
    public static function from(string $path, string $name, array $data): self
    {
        $id = static fn (string $key): ?Uuid => null === ($data[$key] ?? null) ? null : RowValues::uuid(JsonValue::of($data[$key], $key));

        return new self(
            $path,
            $name,
            $id('storey'),
            $id('side'),
            $data['worldFile'] ?? null,
            $data['origin'] ?? '',
            $data['address'] ?? '',
            $id('replaces'),
        );
    }
}
