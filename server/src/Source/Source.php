<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\RowValues;

/** An imported file, kept byte for byte under its SHA-256. */
#[ORM\Entity]
#[ORM\Index(fields: ['project'])]
class Source extends ProjectRow
{
    #[ORM\Column(length: 200)]
    private string $name = '';

    #[ORM\Column(length: 64)]
    private string $sha256 = '';

    #[ORM\Column]
    private int $bytes = 0;

    #[ORM\Column(length: 40)]
    private string $mediaType = '';

    public static function type(): RowType
    {
        return RowType::Source;
    }

    public function values(): array
    {
        return ['name' => $this->name, 'sha256' => $this->sha256, 'bytes' => $this->bytes, 'mediaType' => $this->mediaType];
    }

    public function take(RowValues $values): void
    {
        $this->name = $values->name('name', 200);
        $this->sha256 = $values->name('sha256', 64);
        $this->bytes = $values->count('bytes');
        $this->mediaType = $values->name('mediaType', 40);
    }

    public function sha256(): string
    {
        return $this->sha256;
    }
}
