<?php

namespace App\Sheets\Files;

use OpenSpout\Reader\Common\Creator\ReaderEntityFactory;
use OpenSpout\Reader\Common\Entity\Options;
use OpenSpout\Reader\Common\XMLProcessor;
use OpenSpout\Reader\ODS\Creator\HelperFactory;
use OpenSpout\Reader\ODS\Creator\InternalEntityFactory;
use OpenSpout\Reader\ODS\Creator\ManagerFactory;
use OpenSpout\Reader\ODS\Manager\OptionsManager;
use OpenSpout\Reader\ODS\Reader;
use OpenSpout\Reader\ODS\Sheet;

/** Has openspout read ODS by OdsRows. */
final class OdsEntities extends InternalEntityFactory
{
    private function __construct(private readonly HelperFactory $helpers, private readonly ManagerFactory $managers)
    {
        parent::__construct($helpers, $managers);
    }

    /** @see ReaderEntityFactory::createODSReader, which this takes the place of */
    public static function reader(): Reader
    {
        $helpers = new HelperFactory();

        return new Reader(
            new OptionsManager(),
            $helpers->createGlobalFunctionsHelper(),
            new self($helpers, new ManagerFactory()),
        );
    }

    public function createSheet($xmlReader, $sheetIndex, $sheetName, $isSheetActive, $isSheetVisible, $optionsManager)
    {
        $rows = new OdsRows(
            $xmlReader,
            $optionsManager,
            $this->helpers->createCellValueFormatter($optionsManager->getOption(Options::SHOULD_FORMAT_DATES)),
            new XMLProcessor($xmlReader),
            $this->managers->createRowManager($this),
            $this,
        );

        return new Sheet($rows, $sheetIndex, $sheetName, $isSheetActive, $isSheetVisible);
    }
}
