<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** What the title block of a sheet says: the data fields of ISO 7200 that a drawing of a building has. */
final readonly class TitleFields
{
    /**
     * @param string $owner whose drawing it is
     * @param string $title of the project
     * @param string $part what of it the sheet shows
     * @param string $number identification number
     * @param string $date of issue, ISO 8601
     * @param string $creator who drew it
     * @param string $approved by whom; none while nobody has
     * @param string $sheet number of the sheet and how many there are
     * @param string $honest from what it was traced and how true that is
     */
    public function __construct(
        public string $title,
        public string $part,
        public string $honest,
        public string $owner = '',
        public string $number = '',
        public string $date = '',
        public string $creator = '',
        public string $approved = '',
        public string $sheet = '1/1',
    ) {
    }
}
