<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\RowValues;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** One page of a source, upright by its own tags. Its import is a job with a state of its own, outside the changes. */
#[ORM\Entity]
#[ORM\Index(fields: ['project'])]
#[ORM\Index(fields: ['source'])]
class Page extends ProjectRow
{
    public const FOLLOWS = ['state', 'hasPreview', 'tilesDone', 'tilesTotal', 'tileSuffix', 'message'];

    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $source;

    #[ORM\Column]
    private int $number = 1;

    #[ORM\Column]
    private int $width = 0;

    #[ORM\Column]
    private int $height = 0;

    /** pixels per inch by the file's own tag */
    #[ORM\Column(nullable: true)]
    private ?float $resolution = null;

    #[ORM\Column(length: 10)]
    private PageState $state = PageState::Waiting;

    #[ORM\Column]
    private bool $hasPreview = false;

    #[ORM\Column]
    private int $tilesDone = 0;

    #[ORM\Column]
    private int $tilesTotal = 0;

    /** suffix of the tiles once written */
    #[ORM\Column(length: 8)]
    private string $tileSuffix = '';

    #[ORM\Column(length: 400)]
    private string $message = '';

    public static function type(): RowType
    {
        return RowType::Page;
    }

    public function values(): array
    {
        return ['source' => $this->source->toRfc4122(), 'number' => $this->number, 'width' => $this->width, 'height' => $this->height, 'resolution' => $this->resolution];
    }

    public function take(RowValues $values): void
    {
        $this->source = $values->id('source');
        $this->number = $values->count('number');
        $this->width = $values->count('width');
        $this->height = $values->count('height');
        $this->resolution = $values->optionalNumber('resolution');
    }

    public function references(): array
    {
        return [[RowType::Source, $this->source, 'source']];
    }

    /** @return array{page: string, state: string, hasPreview: bool, tilesDone: int, tilesTotal: int, tileSuffix: string, message: string} */
    public function progress(): array
    {
        return [
            'page' => $this->id->toRfc4122(),
            'state' => $this->state->value,
            'hasPreview' => $this->hasPreview,
            'tilesDone' => $this->tilesDone,
            'tilesTotal' => $this->tilesTotal,
            'tileSuffix' => $this->tileSuffix,
            'message' => $this->message,
        ];
    }

    public function source(): Uuid
    {
        return $this->source;
    }

    public function width(): int
    {
        return $this->width;
    }

    public function height(): int
    {
        return $this->height;
    }

    public function resolution(): ?float
    {
        return $this->resolution;
    }

    public function state(): PageState
    {
        return $this->state;
    }

    public function tileSuffix(): string
    {
        return $this->tileSuffix;
    }

    public function hasPreview(): bool
    {
        return $this->hasPreview;
    }
}
