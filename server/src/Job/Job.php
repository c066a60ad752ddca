<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\RowId;
use Plinth\Server\Change\RowValues;
use Symfony\Component\Uid\Uuid;

/** A piece of long work as a worker has taken it. */
final readonly class Job
{
    /** @param array<string, mixed> $more what its kind needs to know beside the row it is about */
    public function __construct(public int $number, public string $kind, public RowId $about, public array $more, public int $attempt)
    {
    }

    public function text(string $key): string
    {
        return JsonValue::of($this->more, $this->kind)->get($key)->text();
    }

    public function id(string $key): Uuid
    {
        return RowValues::uuid(JsonValue::of($this->more, $this->kind)->get($key));
    }
}
