import { HeatmapChart, LineChart, ScatterChart } from 'echarts/charts';
import {
  AriaComponent,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
  VisualMapComponent,
} from 'echarts/components';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

echarts.use([
  AriaComponent,
  SVGRenderer,
  GridComponent,
  HeatmapChart,
  LineChart,
  MarkAreaComponent,
  MarkLineComponent,
  ScatterChart,
  TooltipComponent,
  VisualMapComponent,
]);

export default echarts;
